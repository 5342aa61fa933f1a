import { describe, expect, it } from 'vitest'
import { fromUnit, inUnit, shownUnit } from './units'

describe('units as shown', () => {
  it('converts for show: 1 psi is 6.894757 kPa, 1 in² is 645.16 mm², 1 oz is 28.3495 g', () => {
    expect(6.894757293168 * shownUnit('kpa', 'inch').factor).toBeCloseTo(1, 9)
    expect(645.16 * shownUnit('mm2', 'inch').factor).toBeCloseTo(1, 12)
    expect(6.4516 * shownUnit('cm2', 'inch').factor).toBeCloseTo(1, 12)
    expect(28.349523125 * shownUnit('g', 'inch').factor).toBeCloseTo(1, 12)
    expect(3.785411784 * shownUnit('l_min', 'inch').factor).toBeCloseTo(1, 12)
    expect(shownUnit('mm2', 'metric')).toEqual({ symbol: 'mm²', factor: 1, zero: 0 })
    expect(inUnit(99.99996, shownUnit('percent', 'inch'))).toBe(99.99996)
    expect([inUnit(-25, shownUnit('c', 'inch')), fromUnit(32, shownUnit('c', 'inch')), inUnit(10, shownUnit('k', 'inch'))]).toEqual([-13, 0, 18])
    expect(() => shownUnit('furlong' as never, 'metric')).toThrow()
  })
})
