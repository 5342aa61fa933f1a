import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { linePath, plainScale, roundTicks } from '@/shared/plainScale'
import { crowdingWords, pleatPath } from '@/figures/packFigure'
import { stripFigure } from '@/figures/stripFigure'
import { agreementLines, agreementWords, valveFigure } from '@/figures/valveFigure'

const valve: Schemas['ValveOut'] = {
  evidence: [], agreements: [], closing_kpa: null, stated_band: null, senses: null, kind: 'coil_spring', opening_kpa: 120, full_open_kpa: 200,
  seat_inside_mm: 13, seat_outside_mm: 15, lift_limit_mm: 3, lift_is_assumed: false, spring_outside_mm: 13, spring_wire_mm: 1.2,
  spring_coils: 6, spring_installed_mm: 17, coil_bound: false, curves: [],
}

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
  it('draws whatever was read: nothing at all, a seat turned round, a spring shorter than its lift', () => {
    for (const change of [
      { seat_inside_mm: null, seat_outside_mm: null, lift_limit_mm: null, spring_installed_mm: null },
      { seat_inside_mm: 16, seat_outside_mm: 12 },
      { spring_installed_mm: 2, lift_limit_mm: 6 },
      { spring_coils: 100000 },
    ]) {
      const figure = valveFigure({ ...valve, ...change })
      expect(figure.seatOutside).toBeGreaterThan(figure.seatInside)
      expect(figure.states.every((state) => numbers(state.spring).flat().every(Number.isFinite))).toBe(true)
    }
    expect(valveFigure({ ...valve, seat_inside_mm: null }).guessed).toBe(true)
  })
  it('is drawn as it is built: a leaf spring is a blade, a flap bends away from its hinge', () => {
    const leaf = valveFigure({ ...valve, kind: 'leaf_spring' }).states[2]!
    expect(leaf.wires).toEqual([])
    expect(leaf.spring).toContain('Q')
    const [closed, , open] = valveFigure({ ...valve, kind: 'flap' }).states
    expect(open!.spring).toBe('')
    const corner = (disc: string, i: number) => numbers(disc.replace('V', 'L0 '))[i]![1]
    expect(corner(open!.disc, 0)).toBe(corner(closed!.disc, 0))
    expect(corner(open!.disc, 1)! - corner(closed!.disc, 1)!).toBeCloseTo(3)
    expect(valveFigure({ ...valve, kind: 'combined' }).states[0]!.wires).toEqual([])
    expect(valveFigure({ ...valve, kind: 'a ball on a spring' }).states[0]!.wires.length).toBeGreaterThan(3)
  })
  it('says whether two ways agree', () => {
    expect(agreementWords({ first: 'force', second: 'spring', normalised_error: 0.42, agrees: true })).toBe(
      'push-off force and spring dimensions agree (Eₙ 0.4)',
    )
    expect(agreementWords({ first: 'pressure', second: 'stated', normalised_error: null, agrees: false })).toBe(
      'bench pressure and stated setting disagree',
    )
    const pair = (second: string, normalised_error: number) => ({ first: 'pressure', second, normalised_error, agrees: normalised_error <= 1 })
    expect(agreementLines([pair('force', 0.2), pair('spring', 0.7)]).map((one) => one.words)).toEqual(['all of them agree (Eₙ up to 0.7)'])
    expect(agreementLines([pair('force', 0.2), pair('spring', 0.7), pair('stated', 3)]).map((one) => one.words)).toEqual([
      'bench pressure and stated setting disagree (Eₙ 3.0)',
      'the other pairs agree (Eₙ up to 0.7)',
    ])
  })
})

const pack: Schemas['PackOut'] = {
  outside_mm: 70, inside_mm: 38, count: 50, thickness_mm: 0.8, depth_mm: 16, can_inside_mm: 75, opening_percent: 33, room: 'enough',
  tube_open_mm2: null, measured: ['element.outside_diameter', 'element.inside_diameter', 'element.pleat_count', 'media.thickness'],
}

describe('the pleat pack', () => {
  it('folds once out and once in for every pleat, inside its diameters', () => {
    const radii = numbers(pleatPath(pack)).map(([x, y]) => Math.hypot(x!, y!))
    expect(radii).toHaveLength(100)
    expect(Math.max(...radii)).toBeCloseTo(35 - 0.4)
    expect(Math.min(...radii)).toBeCloseTo(19 + 0.4)
  })
  it('says when it is crowded, when it cannot fit, and when it is a guess', () => {
    expect(crowdingWords(pack)).toBe('33 % of the inside circumference is open between the pleats.')
    expect(crowdingWords({ ...pack, opening_percent: 6, room: 'crowded' })).toContain('crowded')
    expect(crowdingWords({ ...pack, opening_percent: -12, room: 'cannot_fit' })).toContain('cannot fit')
    expect(crowdingWords({ ...pack, room: 'unknown' })).toContain('typical size')
  })
})

const strip: Schemas['StripOut'] = {
  length_mm: 1600, width_mm: 80, potting_mm: 2.5, overlap_mm: 10, blocked_length_mm: 64, gross_cm2: 1280, effective_cm2: 1134.5,
  is_forecast: false, pulled_length_mm: null, pleats_length_mm: null, length_off_percent: null, grammage_g_m2: null,
  deductions: [
    { key: 'element.potting_depth', cm2: 80, measured: true }, { key: 'media.seam_overlap', cm2: 7.5, measured: true },
    { key: 'media.blocked_pleats', cm2: 48, measured: true }, { key: 'media.blocked_area', cm2: 10, measured: true },
  ],
}

describe('the strip', () => {
  it('hatches exactly the area that is lost, whatever rows it is cut into', () => {
    const lost = strip.deductions.reduce((sum, one) => sum + one.cm2, 0)
    for (const aspect of [0.5, 1.35, 4]) {
      const figure = stripFigure(strip, aspect)
      expect(figure.rows.reduce((sum, row) => sum + row.length, 0)).toBeCloseTo(strip.length_mm)
      const hatched = figure.rows.flatMap((row) => row.patches).reduce((sum, one) => sum + one.width * one.height, 0)
      expect(hatched / 100).toBeCloseTo(lost)
    }
  })
  it('loses nothing where nothing is known to be lost', () => {
    const bare = { ...strip, potting_mm: 0, overlap_mm: 0, blocked_length_mm: 0, deductions: [] }
    expect(stripFigure(bare).rows.flatMap((row) => row.patches)).toEqual([])
  })
})

describe('a plain scale', () => {
  it('has round ticks that stay inside', () => {
    expect(roundTicks(281, 6)).toEqual([0, 50, 100, 150, 200, 250])
    expect(roundTicks(3.9, 3)).toEqual([0, 2])
    expect(roundTicks(0)).toEqual([0])
    expect(plainScale(200, 10, 110).at(100)).toBe(60)
    expect(linePath([], [])).toBe('')
  })
})
