import { describe, expect, it } from 'vitest'
import { spreadLabels } from './labels'

describe('labels along a line', () => {
  const far = [{ name: 'opens', at: 100 }, { name: 'full open', at: 250 }]
  it('stay at their marks where there is room', () => expect(spreadLabels(far, 38, 346)).toEqual([100, 250]))
  it('never touch, keep their order and stay inside', () => {
    const close = [{ name: 'opens', at: 104 }, { name: 'full open', at: 110 }, { name: 'closes', at: 100 }]
    for (const shift of [-70, 0, 240]) {
      const labels = close.map((item) => ({ ...item, at: item.at + shift }))
      const middle = spreadLabels(labels, 38, 346)
      const ends = [2, 0, 1].map((i) => [middle[i]! - labels[i]!.name.length * 3, middle[i]! + labels[i]!.name.length * 3] as const)
      expect(ends[0]![0]).toBeGreaterThanOrEqual(38)
      expect(ends[2]![1]).toBeLessThanOrEqual(346)
      expect(ends[0]![1]).toBeLessThan(ends[1]![0])
      expect(ends[1]![1]).toBeLessThan(ends[2]![0])
    }
  })
})
