import { describe, expect, it } from 'vitest'
import { lineKeys, withLine } from './lines'

const line = (measure: string, weight: number, name: string | null = null) => ({ measure, weight, name })
const SEEN = [line('price', 1), line('life_h', 2), line('by_hand', 3, 'make'), line('by_hand', 4, 'caps')]
const nine = <T extends { weight: number }>(one: T): T => ({ ...one, weight: 9 })

describe('a line of a use', () => {
  it('is changed where it stands now, not where it stood', () => {
    const now = SEEN.slice(1)
    expect(withLine(now, SEEN, 1, nine).map((item) => item.weight)).toEqual([9, 3, 4])
    expect(withLine(now, SEEN, 3, nine).map((item) => item.weight)).toEqual([2, 3, 9])
  })
  it('takes a change that follows another of its own', () => {
    const now = [line('price', 7), ...SEEN.slice(1)]
    expect(withLine(now, SEEN, 0, (item) => ({ ...item, best: 4 }))[0]).toEqual({ measure: 'price', weight: 7, name: null, best: 4 })
  })
  it('is refused where another window has removed it, and no other one is changed in its place', () => {
    expect(() => withLine(SEEN.slice(1), SEEN, 0, nine)).toThrow('Another window has changed or removed this line')
  })
  it('is the same one of two alike', () => {
    const two = [line('price', 1), line('price', 2)]
    expect(withLine(two, two, 1, () => null)).toEqual([line('price', 1)])
    expect(lineKeys(two)).toEqual(['price 0', 'price 1'])
  })
})
