import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { stripFigure } from './stripFigure'

const strip: Schemas['StripAreasOut'] = {
  length_mm: 1600, width_mm: 80, potting_mm: 2.5, overlap_mm: 10, blocked_length_mm: 64, gross_cm2: 1280, effective_cm2: 1134.5,
  is_forecast: false, pulled_length_mm: null, pleats_length_mm: null, length_off_percent: null, grammage_g_m2: null,
  deductions: [
    { key: 'element.potting_depth', area_cm2: 80, measured: true }, { key: 'media.seam_overlap', area_cm2: 7.5, measured: true },
    { key: 'media.blocked_pleats', area_cm2: 48, measured: true }, { key: 'media.blocked_area', area_cm2: 10, measured: true },
  ],
}

describe('the strip', () => {
  it('hatches exactly the area that is lost, whatever rows it is cut into', () => {
    const lost = strip.deductions.reduce((sum, deduction) => sum + deduction.area_cm2, 0)
    for (const aspect of [0.5, 1.35, 4]) {
      const figure = stripFigure(strip, aspect)
      expect(figure.rows.reduce((sum, row) => sum + row.length, 0)).toBeCloseTo(strip.length_mm)
      const hatched = figure.rows.flatMap((row) => row.patches).reduce((sum, patch) => sum + patch.width * patch.height, 0)
      expect(hatched / 100).toBeCloseTo(lost)
    }
  })
  it('loses nothing where nothing is known to be lost', () => {
    const bare = { ...strip, potting_mm: 0, overlap_mm: 0, blocked_length_mm: 0, deductions: [] }
    expect(stripFigure(bare).rows.flatMap((row) => row.patches)).toEqual([])
  })
})
