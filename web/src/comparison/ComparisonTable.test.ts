import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import ComparisonTable from './ComparisonTable.vue'

const titles = new Map([['media.thickness', 'Media: thickness']])
const start: Schemas['WarmUpTotalsOut'] = {
  filled_after_s: 4, pressure_after_s: null, bypass_minutes: 0.1, unfiltered_l: 0.4, volume_l: 800, lowest_gallery_kpa: 160, dry_s: 0,
}
const atPoint: Schemas['FilterAtPointOut'] = {
  parts: [{ name: 'media', differential_pressure_kpa: 50, share_percent: 72.4 }, { name: 'inlet_holes', differential_pressure_kpa: 11, share_percent: 16 }],
  filter_pressure_kpa: 70, gallery_pressure_kpa: 300, unfiltered_percent: 0, onset_c: -4.4, filling_onset_c: 17.6, has_valve: true,
}
const side = (change: Partial<Schemas['ComparedFilterOut']>): Schemas['ComparedFilterOut'] => ({
  key: '1', sample_id: 1, label: 'A', at_point: atPoint, start, problem: null, missing: [], ...change,
})
const band = (change: Partial<Schemas['SliceBandOut']>): Schemas['SliceBandOut'] => ({
  kind: 'band', key: '1', along: [], value: [], low: [], middle: [], high: [], unit: 'kpa', draws: 1000, impossible: 0, onset_c: -4.4, onset_low_c: -21.3,
  onset_high_c: 14.6, shut_percent: 0, ...change,
})

describe('filters side by side', () => {
  const table = (filters: Schemas['ComparedFilterOut'][], bands: Record<string, Schemas['SliceBandOut']> = {}, behaviour: Schemas['BehaviourOut'][] | null = null) =>
    mount(ComparisonTable, {
      props: {
        comparison: { temperature_c: -20, speed_rpm: 1500, start_c: -25, duty_cycle: 'x', filters }, bands, behaviour, inHand: 1, shown: ['1'], who: 'filter', titles, family: 'metric',
      },
    })
  it('answer which part restricts, below what temperature, and for how long', () => {
    const wrapper = table([side({})], { 1: band({}) })
    expect(wrapper.get('[data-answer="restricts"]').text()).toContain('Media 72 % inlet holes 16 %')
    expect(wrapper.get('[data-answer="onset"]').text()).toBe('−4 °C −21 … 15 °C')
    expect(wrapper.get('[data-answer="start"]').text()).toBe('6.0 s')
  })
  it('tell how hard the element is pressed at most, where it is known', () => {
    const known: Schemas['BehaviourOut'] = {
      sample_id: 1, coldest_pumping_c: -35, element_greatest_kpa: 181.2, element_greatest_stuck_kpa: 457.4, speed_rpm: [], onset_c: [], filling_onset_c: [], problem: null, missing: [],
    }
    const cell = (behaviour: Schemas['BehaviourOut'][]) => table([side({})], {}, behaviour).get('[data-answer="greatest"]').text()
    expect(cell([known])).toBe('181 (457)')
    expect(cell([])).toBe('')
    expect(cell([{ ...known, element_greatest_kpa: null, element_greatest_stuck_kpa: null }])).toBe('')
    expect(table([side({})]).find('[data-answer="greatest"]').exists()).toBe(false)
  })
  it('tell shut from never closing, and an interval that begins shut', () => {
    const onset = (change: Partial<Schemas['FilterAtPointOut']>, found?: Schemas['SliceBandOut']) =>
      table([side({ at_point: { ...atPoint, ...change } })], found ? { 1: found } : {}).get('[data-answer="onset"]').text()
    expect(onset({ onset_c: null })).toBe('shut')
    expect(onset({ onset_c: 150 })).toBe('never closes')
    expect(onset({ onset_c: -0.2 })).toBe('0 °C')
    expect(onset({ has_valve: false })).toBe('no bypass')
    expect(onset({ onset_c: null }, band({ onset_low_c: null, onset_high_c: -19, shut_percent: 60 }))).toBe('shut shut … −19 °C')
    expect(onset({ onset_c: null }, band({ shut_percent: 99 }))).toContain('shut in nearly all draws')
  })
  it('say in words what one still needs', async () => {
    const wrapper = table([side({ problem: 'still missing: media.thickness', missing: ['media.thickness', 'b', 'c', 'd', 'e'] })])
    expect(wrapper.text()).toContain('needs Media: thickness, b, c, d and 1 more')
    await wrapper.get('input').trigger('change')
    expect(wrapper.emitted('toggle')).toEqual([['1']])
  })
})
