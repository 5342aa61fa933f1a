import { describe, expect, it } from 'vitest'
import { csv, tsv } from './download'

describe('a table that is copied', () => {
  it('has its caption first and tabs between the cells, whatever is in them', () => {
    const rows = [['filter', 'Δp, kPa'], ['a "quoted", one', 1.5], ['two\nlines', null]]
    expect(tsv(csv(rows), 'Slice; a model, not a test.')).toBe(
      'Slice; a model, not a test.\nfilter\tΔp, kPa\na "quoted", one\t1.5\ntwo lines\t\n',
    )
  })
})
