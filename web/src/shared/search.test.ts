import { describe, expect, it } from 'vitest'
import { score, search, type Found } from './search'

describe('search by the analyst’s own words', () => {
  const entry = (title: string, kind: string, words: string[] = []): Found => ({ title, kind, words, run: () => undefined })
  const entries = [
    entry('Anti-drainback valve: lift', 'reading', ['lift', 'flapper lift']),
    entry('Anti-drainback valve', 'part', ['flapper', 'check valve']),
    entry('Tapping plate', 'part', ['base plate', 'end plate']),
    entry('Undo', 'action', ['take back']),
  ]
  it('puts the exact word first and finds parts by synonyms', () => {
    expect(search(entries, 'flapper').map((item) => item.title)).toEqual(['Anti-drainback valve', 'Anti-drainback valve: lift'])
    expect(search(entries, 'Base Plate')[0]!.title).toBe('Tapping plate')
    expect(search(entries, 'plate tap')[0]!.title).toBe('Tapping plate')
    expect(search(entries, 'zzz')).toEqual([])
  })
  it('asks nothing of an empty question', () => {
    expect(score(entries[0]!, '  ')).toBe(0)
  })
})
