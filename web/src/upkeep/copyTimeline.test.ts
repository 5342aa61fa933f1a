import { describe, expect, it } from 'vitest'
import { fileSize, lacks, timeline } from './copyTimeline'

const copy = {
  name: 'x', occasion: 'daily' as const, words: 'on a day of use', made: '2026-11-20T12:00:00', bytes: 1, changes_missing: 2, last_missing: ['a', 'b'], studies_missing: [], reports_missing: [],
}

describe('the timeline of copies', () => {
  const now = new Date('2026-11-24T09:00:00')

  it('has a fortnight at least, today at its right end, and each day as wide as another', () => {
    const drawn = timeline({ days: [{ day: '2026-11-24', changes: 30 }, { day: '2026-11-20', changes: 15 }], copies: [copy] }, 1400, 60, now)
    expect(drawn.ticks[0]).toEqual({ x: 1350, words: 'today' })
    const [today, earlier] = drawn.bars
    expect(today!.x + today!.width).toBeCloseTo(1399)
    expect([today!.height, earlier!.height]).toEqual([60, 30])
    expect(today!.x - earlier!.x).toBeCloseTo(400)
    expect(drawn.pins[0]!.x).toBeCloseTo(earlier!.x - 1 + 50) // at noon
    expect(drawn.pins[0]!.safe).toBe(false)
  })

  it('leaves out what is older than it shows, and stands empty', () => {
    const drawn = timeline({ days: [{ day: '2026-01-01', changes: 3 }], copies: [{ ...copy, made: '2026-02-01T00:00:00' }] }, 600, 60, now)
    expect(drawn.bars).toEqual([])
    expect(drawn.pins).toEqual([])
    expect(timeline({ days: [], copies: [] }, 600, 60, now).tallest).toBe(1)
  })
})

describe('the words of a copy', () => {
  it('say what it lacks', () => {
    expect(lacks(copy)).toBe('2 changes (the last: a; b)')
    expect(lacks({ ...copy, changes_missing: 0, last_missing: [] })).toBe('nothing')
    expect(lacks({ ...copy, changes_missing: 0, last_missing: [], studies_missing: ['s'] })).toBe('the study s')
    expect(lacks({ ...copy, reports_missing: ['2026-0002'] })).toBe('2 changes (the last: a; b) and the issued report 2026-0002')
    expect(lacks({ ...copy, changes_missing: null })).toContain('cannot be told')
  })

  it('and how large it is', () => {
    expect([fileSize(390_001), fileSize(2_340_000), fileSize(5.2e10)]).toEqual(['391 kB', '2.3 MB', '52.0 GB'])
  })
})
