import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { assumptionBand, onsetWords, sensitivitySentence, inputsByProvenance } from './assumptions'

const assumption = (name: string, change: number, low: number | null, high: number | null): Schemas['AssumptionOut'] => ({
  name, value: 1, unit: '', low: 0.5, high: 2, is_factor: true, mean_change_percent: change, onset_low_c: low, onset_high_c: high,
})

describe('sensitivity of a map', () => {
  it('names the two strongest assumptions with their bands, as they were computed', () => {
    const sensitivity = { inputs: [], assumptions: [assumption('model.permeability', 28.4, -30, -20), assumption('model.pump', 1.4, -25, -24.99), assumption('model.hole_loss', 0, null, null)] }
    expect(sensitivitySentence(sensitivity, 'Element Δp')).toBe(
      'Element Δp is most sensitive to the permeability of the media (×/÷ 2.00: 28 %), then to the pump displacement (×/÷ 2.00: 1.4 %).',
    )
    expect(sensitivitySentence({ inputs: [], assumptions: [] }, 'x')).toBe('No assumption moves it.')
  })
  it('tells a valve that is moved from one that stays shut', () => {
    expect(onsetWords(assumption('a', 1, -30, -20), 'metric')).toBe('bypass onset −30 to −20 °C')
    expect(onsetWords(assumption('a', 1, null, -20), 'metric')).toContain('from shut to −20')
    expect(onsetWords(assumption('a', 1, -30, -20), 'inch')).toBe('bypass onset −22 to −4.0 °F')
    expect(onsetWords(assumption('a', 1, null, null), 'metric')).toBe('bypass stays shut')
    expect(assumptionBand({ ...assumption('model.cold_viscosity', 1, null, null), unit: '×', is_factor: false, low: 1 })).toBe('× 1.0 to 2.0')
  })
  it('counts the inputs by where they come from', () => {
    const inputs = [{ key: 'a', provenance: 'assumed' }, { key: 'b', provenance: 'measured' }, { key: 'c', provenance: 'assumed' }] as const
    expect(inputsByProvenance(inputs).map((item) => [item.provenance, item.keys.length])).toEqual([['measured', 1], ['assumed', 2]])
  })
})
