import { scaleLinear } from 'd3-scale'
import { describe, expect, it } from 'vitest'
import { fieldColour, fieldScale, paintField, place } from './mapField'
import { levelLines, openRegion, thresholdPath } from './mapLines'

const temperatures = [0, 10, 20]
const speeds = [1000, 2000, 3000]
const scales = { x: scaleLinear([1000, 3000], [0, 200]), y: scaleLinear([0, 20], [100, 0]) }

function luminance(colour: string): number {
  const [r, g, b] = colour.startsWith('#')
    ? [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16))
    : colour.match(/\d+/g)!.map(Number)
  return 0.2126 * (r! / 255) ** 2.2 + 0.7152 * (g! / 255) ** 2.2 + 0.0722 * (b! / 255) ** 2.2
}

describe('the colours of the field', () => {
  it('only get darker, so that they hold in grey and for any eye', () => {
    const shades = Array.from({ length: 21 }, (_, i) => luminance(fieldColour(i / 20)))
    for (let i = 1; i < shades.length; i += 1) expect(shades[i]!).toBeLessThan(shades[i - 1]!)
  })
  it('stay inside the scale', () => {
    expect(fieldColour(-1)).toBe(fieldColour(0))
    expect(fieldColour(2)).toBe(fieldColour(1))
  })
})

describe('the scale of the field', () => {
  it('is logarithmic over the values that are there', () => {
    const scale = fieldScale([[1, 10, null], [100, 0, 5]], true)
    expect([scale.low, scale.high]).toEqual([1, 100])
    expect(scale.share(10)).toBeCloseTo(0.5)
    expect(scale.levels).toEqual([1, 2, 5, 10, 20, 50, 100])
  })
  it('survives a field without values or with one', () => {
    for (const isLog of [true, false]) expect(fieldScale([[null]], isLog).low).toBeLessThan(fieldScale([[null]], isLog).high)
    expect(fieldScale([[3]], true).share(3)).toBeCloseTo(0.5)
  })
  it('is straight where values span no decades, with round levels inside', () => {
    const scale = fieldScale([[0, 50], [null, 100]], false)
    expect([scale.low, scale.high, scale.share(25), scale.share(null)]).toEqual([0, 100, 0.25, null])
    expect(scale.levels).toEqual([20, 40, 60, 80])
    expect(fieldScale([[0, 0]], false).share(0)).toBe(0)
  })
  it('places a value between nodes and holds it there', () => {
    expect(place(temperatures, 15)).toEqual({ index: 1, share: 0.5 })
    expect(place(temperatures, 99)).toEqual({ index: 1, share: 1 })
    expect(place(temperatures, -5)).toEqual({ index: 0, share: 0 })
  })
})

describe('painting', () => {
  it('puts the hottest row on top and leaves gaps clear', () => {
    const grid = [
      [null, null, null],
      [10, 10, 10],
      [1, 1, 1],
    ]
    const pixels = paintField(grid, temperatures, speeds, fieldScale(grid, true), 4, 40)
    const grey = (row: number) => pixels[4 * row * 4]! + pixels[4 * row * 4 + 1]!
    expect(grey(0)).toBeGreaterThan(grey(19))
    expect(pixels[3]).toBe(255)
    const gone = paintField([[1, 1, 1], [null, null, null], [1, 1, 1]], temperatures, speeds, fieldScale(grid, true), 4, 40)
    expect(gone[4 * 39 * 4 + 3]).toBe(0)
  })
})

describe('lines over the map', () => {
  it('run where the field has the level, up to the border, and are labelled there', () => {
    const grid = temperatures.map((t) => speeds.map(() => 10 ** (2 - t / 10)))
    const scale = { ...fieldScale(grid, true), levels: [31.6227766] }
    const [line] = levelLines(grid, temperatures, speeds, scale, scales)
    const ys = [...line!.path.matchAll(/,([\d.]+)/g)].map((match) => Number(match[1]))
    const xs = [...line!.path.matchAll(/[ML]([\d.]+)/g)].map((match) => Number(match[1]))
    for (const y of ys) expect(y).toBeCloseTo(scales.y(5), 0)
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([0, 200])
    expect(line!.label).not.toBeNull()
  })
  const onset = { across: speeds, closes: [null, 5, 150], reopens: [null, null, null] }
  it('break where there is no onset, and a valve that never closes fills its column', () => {
    expect(thresholdPath(onset, scales)).toBe('M100,75Z')
    expect(openRegion(onset, 0, 20, scales)).toBe('M100,100L100,75L200,0L200,100Z')
  })
  it('show where the valve opens again', () => {
    const again = { across: speeds, closes: [null, null, null], reopens: [null, 15, 10] }
    expect(openRegion(again, 0, 20, scales)).toBe('M100,0L100,25L200,50L200,0Z')
  })
})
