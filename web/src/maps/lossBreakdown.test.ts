import { describe, expect, it } from 'vitest'
import { lossesAt, lossSentence, pressureProfile } from './lossBreakdown'
import { map } from './testMap'

describe('the pressure-loss breakdown', () => {
  it('shares the whole loss and names the filter’s own largest part with the next', () => {
    const rows = lossesAt(map(), 0, 0)
    expect(rows.map((row) => [row.title, row.share])).toEqual([['Oil cooler', 0.9], ['Media', 0.06], ['Outlet bore', 0.04]])
    expect(lossSentence(rows, '−20 °C', '1500 rpm')).toBe(
      "At −20 °C and 1500 rpm the media take most of the filter's loss: 60 %, then outlet bore 40 %.",
    )
  })
  it('speaks of holes and channels as many, and of most only from a half on', () => {
    const rows = lossesAt(map({ loss_breakdown: [['inlet_holes', 4], ['media', 3], ['outlet', 3]].map(([name, total]) => ({
      name: String(name), viscous_kpa: [[Number(total)]], inertial_kpa: [[0]], spring_kpa: null,
    })) }), 0, 0)
    expect(lossSentence(rows, '100 °C', '6000 rpm')).toContain("the inlet holes take the largest share of the filter's loss: 40 %")
  })
  it('is empty where the oil does not pump', () => {
    expect(lossesAt(map(), 0, 1)).toEqual([])
    expect(lossSentence([], '0 °C', '1 rpm')).toBe('')
  })
  it('makes a pressure profile that ends where pump pressure less all losses is', () => {
    const steps = pressureProfile(lossesAt(map(), 0, 0), 400)
    expect(steps.map((step) => [step.from, step.to])).toEqual([[400, 310], [310, 304], [304, 300]])
  })
})
