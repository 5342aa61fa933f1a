import { describe, expect, it } from 'vitest'
import { csv } from '@/shared/download'
import { mapQuantities, type FilterAlone } from './mapQuantities'
import { aloneField, boundOf, engineField, fieldRows } from './mapView'
import { mapSummary } from './mapSummary'
import { map } from './testMap'
import type { OperatingMap } from './useOperatingMap'

describe('the map in words', () => {
  const onset = (closes: (number | null)[], reopens: (number | null)[]) => ({
    onset: { speed_rpm: [1000, 2000], temperature_c: closes, reopens_c: reopens },
  })
  const told = (change: Partial<OperatingMap>, family: 'metric' | 'inch') =>
    mapSummary('Element differential pressure', engineField(map(change), mapQuantities()[0]!, null, family), 'rpm')
  it('says where the extremes are, read off the map, in the family asked for', () => {
    const odd = { temperature_c: [20, 90], element_kpa: [[4, null], [30, 9]] }
    expect(told(odd, 'metric')).toContain('from 4.0 kPa at 20.0 °C and 1000 rpm to 30.0 kPa at 90.0 °C and 1000 rpm')
    expect(told(odd, 'inch')).toContain('4.35 psi at 194 °F')
  })
  it('has the flow through the filter alone in the unit of the family', () => {
    const alone = { ...map(), filter_flow_l_min: [10, 20], onset: { filter_flow_l_min: [10, 20], temperature_c: [5, 6], reopens_c: [null, null] } }
    const field = (family: 'metric' | 'inch') => aloneField(alone as unknown as FilterAlone, mapQuantities()[0]!, null, family)
    expect([field('metric').across, field('metric').acrossTitle]).toEqual([[10, 20], 'filter flow, L/min'])
    expect([field('inch').across, field('inch').onset.across]).toEqual([[2.64172, 5.28344], [2.64172, 5.28344]]) // a US gallon is 3.785411784 L
    expect(field('inch').acrossTitle).toBe('filter flow, US gal/min')
  })
  it('gives the onset at both ends', () => {
    expect(told({}, 'inch')).toContain('closes at 9.79 °F at 1000 rpm, and never closes at 2000 rpm') // −12.34 °C
    expect(told({}, 'metric')).toContain('closes at −12.3 °C at 1000 rpm, and never closes at 2000 rpm')
  })
  it('tells a valve that opens when hot from one that stays closed', () => {
    expect(told(onset([null, null], [null, null]), 'metric')).toContain('stays closed everywhere')
    expect(told(onset([null, null], [null, 96.2]), 'metric')).toContain('the bypass opens at 96.2 °C at 2000 rpm')
    expect(told(onset([null, -8], [null, 60]), 'metric')).toContain('closes at −8.00 °C and opens again at 60.0 °C at 2000 rpm')
    expect(told({ element_kpa: [[null, null]] }, 'metric')).toContain('below the pumpability limit everywhere')
  })
  it('goes into a file with units in the heading and gaps left empty', () => {
    const rows = fieldRows(engineField(map(), mapQuantities()[0]!, null, 'inch'), 'Element differential pressure')
    expect(rows[0]![0]).toContain('psi')
    expect(rows[0]![0]).toContain('down oil temperature, °F')
    expect(rows[1]).toEqual([68, 0.58015, null])
    expect(csv(rows).split('\r\n')[1]).toBe('68,0.58015,')
    expect(csv([['=1+1', '+1', '-x', '@a', '\ta', '\ra', -5, '−5']])).toBe(`'=1+1,'+1,'-x,'@a,'\ta,"'\ra",-5,−5\r\n`)
    expect(csv([['a,b', 'say "x"', null]])).toBe('"a,b","say ""x""",\r\n')
  })
  it('carries the interval of counts to the share captured, and bounds as bounds', () => {
    const at = (value_percent: number | null, low_percent: number | null, high_percent: number | null) =>
      boundOf({ size_um: 20, value_percent, low_percent, high_percent, basis: 'counts', missing: [] })
    expect(at(90, 81, 99)).toEqual({ around: [0.9, 1.1] })
    expect(at(90, null, null)).toEqual({})
    expect(at(null, 80, null)).toEqual({ bound: '≥' })
    expect(at(null, 80, 88)).toEqual({ upTo: 1.1 })
  })
})
