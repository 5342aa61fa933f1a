import { describe, expect, it } from 'vitest'
import { CIRCUIT_PARTS, partOfDetail } from './circuitParts'
import { stationOfKey } from '@/sample/stations'

describe('the engine', () => {
  it('has every detail of its drawing at one part, and each leads to its station', () => {
    const keys = CIRCUIT_PARTS.flatMap((part) => part.details)
    expect(new Set(keys).size).toBe(keys.length)
    expect(partOfDetail('engine.regulator_opening')).toBe('regulator')
    expect(stationOfKey('engine.regulator_opening', undefined)).toBe('engine')
    expect(stationOfKey('engine.stud_bore', undefined)).toBe('intake')
    expect([stationOfKey('oil.viscosity', undefined), stationOfKey('plan.start_c', undefined), stationOfKey('scenarios', undefined)]).toEqual(['engine', 'start', 'map'])
  })
})
