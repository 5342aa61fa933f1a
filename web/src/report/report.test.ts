import { describe, expect, it } from 'vitest'
import { moved, partsOf, toggled, type Plan, type Report } from './useReport'

const plan = { title: null, prepared_by: null, prepared_for: null, paper: null, units: null, sections: [], parts: [] } as unknown as Plan
const sizes = [
  { key: 'short', title: 'Short', parts: ['answer', 'claims'] },
  { key: 'full', title: 'Full', parts: ['answer', 'claims', 'readings'] },
] as Report['sizes']
const sections = [
  { key: 'working', title: 'Working' },
  { key: 'map', title: 'Map' },
] as Report['sections']

describe('the plan of a report', () => {
  it('holds the parts of its size where none is chosen', () => {
    expect(partsOf(plan, sizes).map((item) => item.part)).toEqual(['answer', 'claims'])
    expect(partsOf({ ...plan, size: 'full' }, sizes).map((item) => item.part)).toEqual(['answer', 'claims', 'readings'])
    expect(partsOf({ ...plan, parts: [{ part: 'text', text: 'x' }] }, sizes).map((item) => item.part)).toEqual(['text'])
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
