import { describe, expect, it } from 'vitest'
import table from '~/tests/data/printed_numbers.csv?raw'
import * as numbers from './numbers'

const number = (text: string) => (text === '' ? null : Number(text))

/** Each function of the table that the core is held against too, with its arguments. */
const PRINTED: Record<string, (a: string, b: string, c: string) => string> = {
  number_with_uncertainty: (a, b, c) => numbers.numberWithUncertainty(Number(a), number(b), c),
  number_with_interval: (a, b, c) => numbers.numberWithInterval(Number(a), Number(b), Number(c)),
  interval: (a, b) => numbers.interval(number(a), number(b)),
  significant: (a, b) => numbers.significant(Number(a), Number(b)),
  plain_number: (a, b) => numbers.plainNumber(Number(a), Number(b)),
  signed_number: (a, b) => numbers.signedNumber(Number(a), Number(b)),
  percentage: (a) => numbers.toPercent(Number(a)),
  bound: (a, b, c) => numbers.bound(Number(a), Number(b), c as 'lower' | 'upper'),
}

describe('numbers as people read them', () => {
  it('are printed as the core prints them', () => {
    const [, head, ...rows] = table.trim().split('\n')
    expect(head).toBe('function,a,b,c,printed')
    expect(rows.length).toBeGreaterThan(30)
    for (const row of rows) {
      const [name, a, b, c, printed] = row.split(',') as [string, string, string, string, string]
      expect(PRINTED[name]!(a, b, c), row).toBe(printed)
    }
  })
})
