import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { headlines } from './headlines'

type Result = Schemas['ResultOut']

function result(change: Partial<Result> = {}): Result {
  return {
    value: 175.5, standard_uncertainty: 3.29, expanded_uncertainty: 6.67, low: null, high: null,
    relation: '=', basis: 'measured', missing: [], assumed: [], words: null, ...change,
  }
}

function results(change: Partial<Schemas['ResultsOut']> = {}): Schemas['ResultsOut'] {
  const plain = result()
  return {
    inlet_hole_area_mm2: plain, plate_flow_area_mm2: { ...plain, controlled_by: 'outlet', least_stud: null, greatest_stud: null }, plate_series_area_mm2: plain,
    media_gross_area_cm2: plain, media_effective_area_cm2: plain, pleat_opening_at_inside_percent: plain,
    media_permeability_m2: plain, bypass_opening_kpa: plain, bypass_full_open_kpa: plain,
    efficiency_at_20_um_percent: plain, size_at_beta_75_um: plain, size_at_beta_2_um: plain, efficiency_slope: plain,
    retention_capacity_g: plain, ...change,
  }
}

const gap = { value: null, standard_uncertainty: null, expanded_uncertainty: null }

describe('the results tape', () => {
  it('shows value ± U, the basis and the section that controls', () => {
    const [inlet, plate] = headlines(results(), 'metric')
    expect([inlet!.text, inlet!.uncertainty, inlet!.unit]).toEqual(['175.5', '6.7', 'mm²'])
    expect(plate!.from).toBe('measured, outlet bore controls, set by the engine')
    const narrow = { ...result(), controlled_by: 'outlet', least_stud: 113.1, greatest_stud: 143.1 }
    expect(headlines(results({ plate_flow_area_mm2: narrow }), 'metric')[1]!.from).toContain('set by the engine (113 on the narrowest stud)')
  })
  it('converts with the family', () => {
    const inlet = headlines(results(), 'inch')[0]!
    expect([inlet.text, inlet.uncertainty, inlet.unit]).toEqual(['0.272', '0.010', 'in²'])
  })
  it.each([
    [result({ ...gap, low: 93.08, relation: '>=', basis: 'claim' }), '≥ 93', null],
    [result({ ...gap, low: 93.08, relation: '>', basis: 'claim' }), '> 93', null],
    [result({ ...gap, low: 80.1, high: 97.3, basis: 'claim' }), '80.1 to 97.3', null],
    [result({ ...gap, high: 41.81, relation: '<=', basis: 'claim' }), '≤ 41.9', null],
    [result({ relation: '<=' }), '≤ 175.5', '6.7'],
  ])('says bounds and values in their own way', (efficiency, text, uncertainty) => {
    const shown = headlines(results({ efficiency_at_20_um_percent: efficiency }), 'metric')[4]!
    expect([shown.text, shown.uncertainty, shown.complete]).toEqual([text, uncertainty, true])
  })
  it('prints a claim at another size as it was made', () => {
    const claimed = result({ ...gap, low: 89.44, relation: '>=', basis: 'claim', words: '≥ 97 % at 25 µm(c) claimed; at 20 µm(c) not stated' })
    const shown = headlines(results({ efficiency_at_20_um_percent: claimed }), 'metric')[4]!
    expect([shown.text, shown.isWords, shown.complete]).toEqual(['≥ 97 % at 25 µm(c) claimed; at 20 µm(c) not stated', true, true])
  })
  it('gives an estimate its band and no uncertainty', () => {
    const estimate = result({ ...gap, value: 80.9, low: 39, high: 99.43, basis: 'estimate' })
    const shown = headlines(results({ efficiency_at_20_um_percent: estimate }), 'metric')[4]!
    expect([shown.text, shown.uncertainty, shown.band]).toEqual(['about 81', null, '39 to 99'])
  })
  it('gives counts the digits of their interval', () => {
    const counted = result({ value: 89.944, low: 88.69, high: 91.07, standard_uncertainty: 0.6, expanded_uncertainty: 1.19, basis: 'counts' })
    const shown = headlines(results({ efficiency_at_20_um_percent: counted }), 'metric')[4]!
    expect([shown.text, shown.band, shown.from]).toEqual(['89.9', '88.7 to 91.1', 'counted in a test'])
  })
  it('says what is missing instead of a number', () => {
    const open = headlines(results({ inlet_hole_area_mm2: result({ ...gap, missing: ['holes.inlet'] }) }), 'metric')[0]!
    expect([open.complete, open.settled, open.missing]).toEqual([false, false, ['holes.inlet']])
  })
  it('counts a part that is not there as settled', () => {
    const none = headlines(results({ bypass_opening_kpa: result({ ...gap, basis: null }) }), 'metric')[3]!
    expect([none.complete, none.settled]).toEqual([false, true])
  })
})
