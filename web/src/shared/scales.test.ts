import { describe, expect, it } from 'vitest'
import { linePath, oneTwoFive, roundLevels, zeroBasedScale } from './scales'

describe('scales', () => {
  it('have round ticks that stay inside', () => {
    expect(zeroBasedScale(281, 0, 1, 6).ticks).toEqual([0, 50, 100, 150, 200, 250])
    expect(zeroBasedScale(3.9, 0, 1, 3).ticks).toEqual([0, 1, 2, 3])
    expect(zeroBasedScale(0, 0, 1).at(0)).toBe(0)
    expect(zeroBasedScale(200, 10, 110).at(100)).toBe(60)
  })
  it('know the series 1, 2, 5, and round levels strictly inside', () => {
    expect(oneTwoFive(0.03, 3)).toEqual([0.05, 0.1, 0.2, 0.5, 1, 2])
    expect(roundLevels(0, 100)).toEqual([20, 40, 60, 80])
    expect(roundLevels(-3, 4)).toEqual([-2, -1, 0, 1, 2, 3])
  })
  it('draw no line without points', () => {
    expect(linePath([], [])).toBe('')
    expect(linePath([0, 10], [5, 7])).toBe('M0,5L10,7')
  })
})
