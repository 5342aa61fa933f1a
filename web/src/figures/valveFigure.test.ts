import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { agreementLines, agreementWords, valveFigure } from './valveFigure'

const valve: Schemas['ValveOut'] = {
  comparison: { evidence: [], agreements: [], closing_kpa: null, stated_band: null, coil_bound: false },
  senses: null, kind: 'coil_spring', opening_kpa: 120, full_open_kpa: 200, lift_limit_mm: 3, lift_is_assumed: false, curves: [],
  sizes: {
    form: 'coil', seat_inside_mm: 13, seat_outside_mm: 15, disc_mm: 16, lift_mm: 3, spring_width_mm: 11.8, spring_length_mm: 17, wire_mm: 1.2,
    coils: 6, half_open_pressure_kpa: 160, is_typical: false,
  },
}
const withSizes = (change: Partial<Schemas['ValveSizesOut']>) => valveFigure({ ...valve, sizes: { ...valve.sizes, ...change } })

function numbers(path: string): number[][] {
  return path.replace(/[MZ]/g, '').split('L').map((point) => point.trim().split(' ').map(Number))
}

describe('the valve in section', () => {
  it('lifts to scale: closed, half way, at its limit, and the spring gives way by as much', () => {
    const figure = valveFigure(valve)
    expect(figure.states.map((state) => state.lift)).toEqual([0, 1.5, 3])
    expect(figure.states.map((state) => state.kpa)).toEqual([120, 160, 200])
    const lengths = figure.states.map((state) => {
      const ys = numbers(state.spring).map(([, y]) => y!)
      return Math.max(...ys) - Math.min(...ys)
    })
    expect(lengths[0]! - lengths[2]!).toBeCloseTo(3)
    expect(lengths[0]! + 1.2).toBeCloseTo(17) // from middle to middle of the wire
  })
  it('draws no more coils than can be told apart', () => {
    const wires = withSizes({ coils: 100000 }).states[0]!.wires
    expect(wires.length).toBeLessThan(70)
    expect(wires.every(({ x, y }) => Number.isFinite(x) && Number.isFinite(y))).toBe(true)
  })
  it('is drawn as it is built: a leaf spring is a blade, a flap bends away from its hinge', () => {
    const leaf = withSizes({ form: 'leaf' }).states[2]!
    expect(leaf.wires).toEqual([])
    expect(leaf.spring).toContain('Q')
    const [closed, , open] = withSizes({ form: 'flap' }).states
    expect(open!.spring).toBe('')
    const corner = (disc: string, i: number) => numbers(disc.replace('V', 'L0 '))[i]![1]
    expect(corner(open!.disc, 0)).toBe(corner(closed!.disc, 0))
    expect(corner(open!.disc, 1)! - corner(closed!.disc, 1)!).toBeCloseTo(3)
  })
  it('says whether two ways agree', () => {
    expect(agreementWords({ first: 'force', second: 'spring', normalised_error: 0.42, agrees: true, reservation: '' })).toBe(
      'push-off force and spring dimensions agree (Eₙ 0.4)',
    )
    expect(agreementWords({ first: 'pressure', second: 'stated', normalised_error: null, agrees: false, reservation: '' })).toBe(
      'bench pressure and stated setting disagree',
    )
    const pair = (second: string, normalised_error: number) => ({ first: 'pressure', second, normalised_error, agrees: normalised_error <= 1, reservation: second === 'stated' ? 'the tolerance of the stated figure is not known' : '' })
    expect(agreementLines([pair('force', 0.2), pair('spring', 0.7)]).map((item) => item.words)).toEqual(['all of them agree (Eₙ up to 0.7)'])
    expect(agreementLines([pair('force', 0.2), pair('spring', 0.7), pair('stated', 3)]).map((item) => item.words)).toEqual([
      'bench pressure and stated setting disagree (Eₙ 3.0), but the tolerance of the stated figure is not known',
      'the other pairs agree (Eₙ up to 0.7)',
    ])
  })
})
