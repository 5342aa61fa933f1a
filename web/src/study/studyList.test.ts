import { describe, expect, it } from 'vitest'
import { shownStudies } from './studyList'

const study = (name: string, changed_at: string, more: object = {}) => ({
  name, question: null, created_at: changed_at, changed_at, sample_count: 1, samples: [{ label: 'Ä 1', maker: 'Korvath', part_number: 'KV 212' }], ...more,
})
const studies = [study('study 10', '2026-11-02'), study('study 9', '2026-11-03', { samples: [], sample_count: 0 }), study('winter', '2026-11-01', { question: 'Which one?', sample_count: 7 })]
const names = (asked: string, sort: Parameters<typeof shownStudies>[2]) => shownStudies(studies, asked, sort).map((item) => item.name)

describe('the list of studies', () => {
  it('is found by the beginnings of words, of samples too, whatever their case and accents', () => {
    expect(names('kv korv', 'changed')).toEqual(['study 10', 'winter'])
    expect(names('WHICH', 'changed')).toEqual(['winter'])
    expect(names('a 1', 'name')).toEqual(['study 10', 'winter'])
    expect(names('orvath', 'changed')).toEqual([])
  })
  it('is sorted as asked, numbers as numbers', () => {
    expect(names('', 'changed')).toEqual(['study 9', 'study 10', 'winter'])
    expect(names('', 'name')).toEqual(['study 9', 'study 10', 'winter'])
    expect(names('', 'samples')).toEqual(['winter', 'study 10', 'study 9'])
  })
})
