import { describe, expect, it } from 'vitest'
import { clock, dateInWords } from './clock'

describe('times', () => {
  it('show times as day and minute, and leave other texts alone', () => {
    expect(clock('2026-11-25')).toBe('2026-11-25')
    expect(clock('2026-11-25T08:09:00.123Z')).toMatch(/^2026-11-2\d \d\d:09$/)
    expect(clock('2026-11')).toBe('2026-11')
  })
  it('say how a date was understood', () => {
    expect(dateInWords('2026-10-03')).toBe('Saturday, 3 October 2026')
    expect(dateInWords('2019-05')).toBe('May 2019')
    expect(dateInWords('2019')).toBe('2019')
  })
})
