import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { betaOf, passing, placing, readAt, sizeRange } from './efficiencyChart'

const box = { left: 40, right: 640, top: 10, bottom: 310 }
const curve = {
  read_as: 'um(c)', sizes_um_c: [4, 10, 20, 40], percent: [10, 50, 90, 98], low_percent: [8, 48, 88, 96], high_percent: [12, 52, 92, 99],
  counted_from_um_c: 4, counted_to_um_c: 30,
}
const bare = { claims: [], estimate: null, test: null, problem: '' } as unknown as Schemas['EfficiencyStationOut']
const counted = { ...bare, test: { points: [{ sizes_um_c: [4], beta: 1.1, beta_high: 1.2 }], curves: [curve] } } as unknown as Schemas['EfficiencyStationOut']

describe('the efficiency chart', () => {
  it('knows β = 75 as 98.67 % and no filter as 1', () => {
    expect(betaOf(98 + 2 / 3)).toBeCloseTo(75)
    expect(betaOf(0)).toBe(1)
    expect(betaOf(-20)).toBe(1) // it sheds
    expect(passing(98.5)).toBeCloseTo(15)
  })
  it('holds all sizes on a logarithmic axis, and 100 % or the greatest β on top', () => {
    expect(sizeRange(counted)).toEqual([3, 40.5])
    const places = placing(counted, 'percent', box)
    expect(places.x(20) - places.x(10)).toBeCloseTo(places.x(10) - places.x(5))
    expect(places.y(100)).toBe(10)
    const betas = placing(counted, 'beta', box)
    expect(betas.y(50)).toBeLessThan(betas.y(0))
    expect(betas.up.map((tick) => tick.label)).toContain('75')
  })
  it('reads the curve where the crosshair stands, and says where it is an extrapolation', () => {
    expect(readAt(counted, 11)).toMatchObject({ size: 10, percent: 50, extrapolated: false })
    expect(readAt(counted, 60)).toMatchObject({ size: 40, extrapolated: true })
    expect(readAt(bare, 10)).toBeNull()
  })
})
