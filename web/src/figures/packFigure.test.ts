import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { crowdingWords, pleatPath } from './packFigure'

function numbers(path: string): number[][] {
  return path.replace(/[MZ]/g, '').split('L').map((point) => point.trim().split(' ').map(Number))
}

const pack: Schemas['DrawnPackOut'] = {
  outside_diameter_mm: 70, inside_diameter_mm: 38, count: 50, thickness_mm: 0.8, depth_mm: 16, can_inside_diameter_mm: 75, opening_percent: 33, crowding: 'enough',
  tube_open_area_mm2: null, measured: ['element.outside_diameter', 'element.inside_diameter', 'element.pleat_count', 'media.thickness'],
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
    expect(crowdingWords({ ...pack, opening_percent: 6, crowding: 'crowded' })).toContain('crowded')
    expect(crowdingWords({ ...pack, opening_percent: -12, crowding: 'cannot_fit' })).toContain('cannot fit')
    expect(crowdingWords({ ...pack, crowding: 'unknown' })).toContain('typical size')
  })
})
