import { describe, expect, it } from 'vitest'
import { moved, partsOf, toggled, type Plan, type Report } from './useReport'

const plan = { title: null, prepared_by: null, prepared_for: null, paper: null, units: null, sections: [], parts: [] } as unknown as Plan
const parts = [
  { key: 'answer', title: 'The answer' },
  { key: 'claims', title: 'Claims' },
  { key: 'text', title: 'Own text' },
] as Report['parts']
const sections = [
  { key: 'working', title: 'Working' },
  { key: 'map', title: 'Map' },
] as Report['sections']

describe('the plan of a report', () => {
  it('holds all parts but own text where none is chosen', () => {
    expect(partsOf(plan, parts).map((item) => item.part)).toEqual(['answer', 'claims'])
    expect(partsOf({ ...plan, parts: [{ part: 'text', text: 'x' }] }, parts).map((item) => item.part)).toEqual(['text'])
  })
  it('moves a part as far as there are places', () => {
    expect(moved(['a', 'b', 'c'], 0, 1)).toEqual(['b', 'a', 'c'])
    expect(moved(['a', 'b', 'c'], 2, 1)).toEqual(['a', 'b', 'c'])
    expect(moved(['a', 'b', 'c'], 2, -9)).toEqual(['c', 'a', 'b'])
  })
  it('takes sections out and in, and tells all as none chosen', () => {
    expect(toggled(plan, 'map', sections)).toEqual(['working'])
    expect(toggled({ ...plan, sections: ['working'] }, 'map', sections)).toEqual([])
  })
})
