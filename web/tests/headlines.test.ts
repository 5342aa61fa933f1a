import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { headlines } from '@/results/headlines'
import { csv } from '@/shared/download'
import { ledgerAt, ledgerSentence, staircase } from '@/maps/ledger'
import { MAP_QUANTITIES } from '@/maps/mapQuantities'
import { engineField, fieldRows } from '@/maps/mapView'
import { mapSummary } from '@/maps/mapSummary'
import type { OperatingMap } from '@/maps/useOperatingMap'

type Result = Schemas['ResultOut']

function result(change: Partial<Result> = {}): Result {
  return {
    value: 175.5, standard_uncertainty: 3.29, expanded_uncertainty: 6.67, low: null, high: null,
    relation: '=', basis: 'measured', missing: [], assumed: [], ...change,
  }
}

function results(change: Partial<Schemas['ResultsOut']> = {}): Schemas['ResultsOut'] {
  const plain = result()
  return {
    inlet_hole_area_mm2: plain, plate_flow_area_mm2: { ...plain, controlled_by: 'outlet' }, plate_series_area_mm2: plain,
    media_gross_area_cm2: plain, media_effective_area_cm2: plain, pleat_opening_at_inside_percent: plain,
    media_permeability_m2: plain, bypass_opening_kpa: plain, bypass_full_open_kpa: plain,
    efficiency_at_20_um_percent: plain, size_at_beta_75_um: plain, ...change,
  }
}

const gap = { value: null, standard_uncertainty: null, expanded_uncertainty: null }

describe('the results tape', () => {
  it('shows value ± U, the basis and the section that controls', () => {
    const [inlet, plate] = headlines(results(), 'metric')
    expect([inlet!.text, inlet!.uncertainty, inlet!.unit]).toEqual(['175.5', '6.7', 'mm²'])
    expect(plate!.rests).toBe('measured, outlet bore controls')
  })
  it('converts with the family', () => {
    const inlet = headlines(results(), 'inch')[0]!
    expect([inlet.text, inlet.uncertainty, inlet.unit]).toEqual(['0.272', '0.010', 'in²'])
  })
  it.each([
    [result({ ...gap, low: 93.08, relation: '>=', basis: 'claim' }), '≥ 93.0', null],
    [result({ ...gap, low: 93.08, relation: '>', basis: 'claim' }), '> 93.0', null],
    [result({ ...gap, low: 80.1, high: 97.3, basis: 'claim' }), '80.1 to 97.3', null],
    [result({ ...gap, high: 41.81, relation: '<=', basis: 'claim' }), '≤ 41.9', null],
    [result({ relation: '<=' }), '≤ 175.5', '6.7'],
  ])('says bounds and values in their own way', (efficiency, text, uncertainty) => {
    const shown = headlines(results({ efficiency_at_20_um_percent: efficiency }), 'metric')[4]!
    expect([shown.text, shown.uncertainty, shown.complete]).toEqual([text, uncertainty, true])
  })
  it('gives an estimate its band and no uncertainty', () => {
    const estimate = result({ ...gap, value: 80.9, low: 39, high: 99.43, basis: 'estimate' })
    const shown = headlines(results({ efficiency_at_20_um_percent: estimate }), 'metric')[4]!
    expect([shown.text, shown.uncertainty, shown.band]).toEqual(['81', null, '39 to 99.4'])
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

function map(change: Partial<OperatingMap> = {}): OperatingMap {
  const grid = [[4, null]]
  const part = (name: string, total: number | null) => ({
    name, viscous_kpa: [[total, null]], inertial_kpa: [[0, null]], spring_kpa: 0,
  })
  return {
    temperature_c: [20], speed_rpm: [1000, 2000], element_kpa: grid, ledger: [part('cooler', 90), part('media', 6), part('outlet', 4)],
    onset: { speed_rpm: [1000, 2000], temperature_c: [-12.34, 150], reopens_c: [null, null] },
    regulator: { speed_rpm: [1000, 2000], temperature_c: [null, null], reopens_c: [null, null] },
    ...change,
  } as OperatingMap
}

describe('the ledger', () => {
  it('shares the whole loss and names the filter’s own largest part with the next', () => {
    const rows = ledgerAt(map(), 0, 0)
    expect(rows.map((row) => [row.title, row.share])).toEqual([['Oil cooler', 0.9], ['Media', 0.06], ['Outlet bore', 0.04]])
    expect(ledgerSentence(rows, -20, 1500)).toBe(
      "At −20 °C and 1500 rpm the media takes most of the filter's loss: 60 %, then outlet bore 40 %.",
    )
  })
  it('speaks of holes and channels as many, and of most only from a half on', () => {
    const rows = ledgerAt(map({ ledger: [['inlet_holes', 4], ['media', 3], ['outlet', 3]].map(([name, total]) => ({
      name: String(name), viscous_kpa: [[Number(total)]], inertial_kpa: [[0]], spring_kpa: 0,
    })) }), 0, 0)
    expect(ledgerSentence(rows, 100, 6000)).toContain("the inlet holes take the largest share of the filter's loss: 40 %")
  })
  it('is empty where the oil does not pump', () => {
    expect(ledgerAt(map(), 0, 1)).toEqual([])
    expect(ledgerSentence([], 0, 1)).toBe('')
  })
  it('makes a staircase that ends where pump pressure less all losses is', () => {
    const steps = staircase(ledgerAt(map(), 0, 0), 400)
    expect(steps.map((step) => [step.from, step.to])).toEqual([[400, 310], [310, 304], [304, 300]])
  })
})

describe('the map in words', () => {
  const onset = (closes: (number | null)[], reopens: (number | null)[]) => ({
    onset: { speed_rpm: [1000, 2000], temperature_c: closes, reopens_c: reopens },
  })
  const told = (change: Partial<OperatingMap>, family: 'metric' | 'inch') =>
    mapSummary('Element differential pressure', engineField(map(change), MAP_QUANTITIES[0]!, null, family), 'rpm')
  it('says where the extremes are, read off the map, in the family asked for', () => {
    const odd = { temperature_c: [20, 90], element_kpa: [[4, null], [30, 9]] }
    expect(told(odd, 'metric')).toContain('from 4.0 kPa at 20.0 °C and 1000 rpm to 30.0 kPa at 90.0 °C and 1000 rpm')
    expect(told(odd, 'inch')).toContain('4.35 psi at 90.0 °C')
  })
  it('gives the onset at both ends', () => {
    expect(told({}, 'metric')).toContain('closes at −12.3 °C at 1000 rpm, and never closes at 2000 rpm')
  })
  it('tells a valve that opens when hot from one that stays closed', () => {
    expect(told(onset([null, null], [null, null]), 'metric')).toContain('stays closed everywhere')
    expect(told(onset([null, null], [null, 96.2]), 'metric')).toContain('the bypass opens at 96.2 °C at 2000 rpm')
    expect(told(onset([null, -8], [null, 60]), 'metric')).toContain('closes at −8.00 °C and opens again at 60.0 °C at 2000 rpm')
    expect(told({ element_kpa: [[null, null]] }, 'metric')).toContain('will not pump anywhere')
  })
  it('goes into a file with units in the heading and gaps left empty', () => {
    const rows = fieldRows(engineField(map(), MAP_QUANTITIES[0]!, null, 'inch'), 'Element differential pressure')
    expect(rows[0]![0]).toContain('psi')
    expect(rows[1]).toEqual([20, 0.58015, null])
    expect(csv(rows).split('\r\n')[1]).toBe('20,0.58015,')
    expect(csv([['a,b', 'say "x"', null]])).toBe('"a,b","say ""x""",\r\n')
  })
})
