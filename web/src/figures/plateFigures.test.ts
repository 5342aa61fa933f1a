import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { outletRows, lossRatioWords, productLines, sectionDiscs } from './plateFigures'

const plate = {
  hole_count: 10, perimeter_mm: 100, equivalent_diameter_mm: 10,
  products: [{ count: 8, area_mm2: 28.9, open_fraction: 1 }, { count: 2, area_mm2: 30, open_fraction: 0.5 }],
  multi_hole_loss_ratio: { viscous: 4.04, hot: null },
  sections_mm2: { outlet: 100, inlet: 400 },
  outlets: [{ name: 'stud', bore_mm: 12.7, area_mm2: 126.7, flow_area_mm2: null, controlled_by: null, adapter_ratio: 0.5 }],
} satisfies Schemas['PlateSummaryOut']

describe('the figures beside the plate', () => {
  it('never leave the count out of the product', () => {
    expect(productLines(plate, 'metric')).toEqual(['8 × 28.90 = 231.2 mm²', '2 × 30.00 × 0.50 open = 30.00 mm²'])
    expect(productLines(plate, 'inch')[0]).toBe('8 × 0.0448 = 0.358 in²')
  })
  it('draw discs whose areas are the sections, the narrowest marked', () => {
    const discs = sectionDiscs(plate, 'metric')
    expect(discs.map((disc) => disc.name)).toEqual(['inlet', 'outlet'])
    expect(discs[0]!.radius / discs[1]!.radius).toBeCloseTo(2, 12)
    expect(discs.map((disc) => disc.controls)).toEqual([false, true])
    expect(discs[0]!.words).toContain('4.00 times')
  })
  it('say what dividing the area costs, and what is missing for it', () => {
    expect(lossRatioWords(plate)).toContain('4.04 times cold')
    expect(lossRatioWords({ ...plate, multi_hole_loss_ratio: { viscous: 4.04, hot: 0.91 } })).toContain('0.910 times at the hot point')
    expect(lossRatioWords({ ...plate, multi_hole_loss_ratio: null })).toContain('needs the plate’s thickness')
  })
  it('show each bore and the adapter against it', () => {
    const row = outletRows(plate, 'inch')[0]!
    expect([row.bore, row.flow, row.controls, row.adapter]).toEqual(['0.500', '…', 'inlet not complete', '0.50 of it'])
  })
})
