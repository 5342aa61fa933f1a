import { describe, expect, it } from 'vitest'
import { oilScale } from './oilScale'

describe('the axes of the oil', () => {
  const scale = oilScale([-40, 140], [3, 50000], [40, 500, 10, 270])
  it('make a straight line of an oil that follows ASTM D341', () => {
    // two points of an oil, and a third on the line by the standard's own equation
    const W = (nu: number) => Math.log10(Math.log10(nu + 0.7))
    const T = (c: number) => Math.log10(c + 273.15)
    const slope = (W(11) - W(66)) / (T(100) - T(40))
    const at70 = 10 ** (10 ** (W(66) + slope * (T(70) - T(40)))) - 0.7
    const [a, b, c] = [[40, 66], [70, at70], [100, 11]].map(([t, nu]) => [scale.x(t!), scale.y(nu!)])
    expect((b![1]! - a![1]!) / (b![0]! - a![0]!)).toBeCloseTo((c![1]! - a![1]!) / (c![0]! - a![0]!), 9)
  })
  it('lead back from a place to temperature and viscosity', () => {
    expect(scale.celsiusAt(scale.x(-25))).toBeCloseTo(-25, 9)
    expect(scale.kinematicAt(scale.y(412))).toBeCloseTo(412, 6)
  })
})
