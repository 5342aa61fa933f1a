import { describe, expect, it } from 'vitest'
import { linePath, plainScale, roundTicks } from './plainScale'

describe('a plain scale', () => {
  it('has round ticks that stay inside', () => {
    expect(roundTicks(281, 6)).toEqual([0, 50, 100, 150, 200, 250])
    expect(roundTicks(3.9, 3)).toEqual([0, 2])
    expect(roundTicks(0)).toEqual([0])
    expect(plainScale(200, 10, 110).at(100)).toBe(60)
    expect(linePath([], [])).toBe('')
  })
})
