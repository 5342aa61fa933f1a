import { describe, expect, it } from 'vitest'
import { clock, restsOn } from './words'

describe('words', () => {
  it('say what a result rests on, best first', () => {
    expect(restsOn({ measured: 5, derived: 0, published: 1, by_eye: 0, assumed: 2 })).toBe('5 measured, 1 published, 2 assumed')
    expect(restsOn(undefined)).toBe('')
  })
  it('show times as day and minute, and leave other texts alone', () => {
    expect(clock('2026-11-25')).toBe('2026-11-25')
    expect(clock('2026-11-25T08:09:00.123Z')).toMatch(/^2026-11-2\d \d\d:09$/)
    expect(clock('2026-11')).toBe('2026-11')
  })
})
