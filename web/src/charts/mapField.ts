/** Paint a field over temperature × speed: colours, levels, interpolation. No DOM in here. */
import { interpolateLab } from 'd3-interpolate'

export type Grid = readonly (readonly (number | null)[])[]

/** Stops of equal steps in lightness, from pale oil to dark: even to the eye, and without red against green. */
const STOPS: readonly [number, string][] = [
  [0, '#f9efd6'],
  [0.2, '#eccb79'],
  [0.45, '#cb8b24'],
  [0.75, '#874e14'],
  [1, '#56300f'],
]

/** The colours at the stops, for a legend. */
export const FIELD_STOPS: readonly number[] = STOPS.map(([share]) => share)

/** Colour of a share 0 to 1 of the scale. */
export function fieldColour(share: number): string {
  const t = Math.min(1, Math.max(0, share))
  for (let i = 1; i < STOPS.length; i += 1) {
    const [low, pale] = STOPS[i - 1]!
    const [high, dark] = STOPS[i]!
    if (t <= high) return interpolateLab(pale, dark)((t - low) / (high - low))
  }
  return STOPS[STOPS.length - 1]![1]
}

function parsed(colour: string): [number, number, number] {
  const parts = colour.match(/\d+(\.\d+)?/g)
  if (colour.startsWith('#') || !parts) {
    return [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16)) as [number, number, number]
  }
  return parts.slice(0, 3).map(Number) as [number, number, number]
}

/** A logarithmic scale of the field's values. */
export interface FieldScale {
  low: number
  high: number
  share: (value: number) => number
  /** 1–2–5 values inside the range. */
  levels: number[]
}

/** Return the logarithmic scale that holds every value of the grids. */
export function fieldScale(grids: readonly Grid[]): FieldScale {
  let low = Infinity
  let high = -Infinity
  for (const grid of grids)
    for (const row of grid)
      for (const value of row)
        if (value !== null && value > 0) {
          low = Math.min(low, value)
          high = Math.max(high, value)
        }
  if (!(low < high)) [low, high] = low === high ? [low / 2, low * 2] : [0.1, 100]
  const span = Math.log10(high / low)
  return { low, high, share: (value) => Math.log10(value / low) / span, levels: oneTwoFive(low, high) }
}

/** Return the numbers 1, 2, 5 × 10ⁿ between two bounds. */
export function oneTwoFive(low: number, high: number): number[] {
  const found: number[] = []
  for (let power = Math.floor(Math.log10(low)); power <= Math.ceil(Math.log10(high)); power += 1)
    for (const step of [1, 2, 5]) {
      const level = Number((step * 10 ** power).toPrecision(3))
      if (level >= low && level <= high) found.push(level)
    }
  return found
}

/** Where a value lies on an axis of rising positions: index of the node before it, and the share beyond. */
export function place(axis: readonly number[], value: number): { index: number; share: number } {
  let index = 0
  while (index < axis.length - 2 && axis[index + 1]! <= value) index += 1
  const share = (value - axis[index]!) / (axis[index + 1]! - axis[index]!)
  return { index, share: Math.min(1, Math.max(0, share)) }
}

/** Bilinear value of the logarithm of a grid; a gap below takes the row above it, a gap above leaves none. */
function logAt(logs: Grid, y: { index: number; share: number }, x: { index: number; share: number }): number | null {
  const [c, d] = [logs[y.index + 1]![x.index]!, logs[y.index + 1]![x.index + 1]!]
  if (c === null || d === null) return null
  const a = logs[y.index]![x.index] ?? c
  const b = logs[y.index]![x.index + 1] ?? d
  const below = a + (b - a) * x.share
  const above = c + (d - c) * x.share
  return below + (above - below) * y.share
}

/** Paint the field into RGBA pixels, first row on top (highest temperature); gaps stay clear. */
export function paintField(
  grid: Grid,
  temperatures: readonly number[],
  speeds: readonly number[],
  scale: FieldScale,
  width: number,
  height: number,
): Uint8ClampedArray<ArrayBuffer> {
  const pixels = new Uint8ClampedArray(width * height * 4)
  const logs = grid.map((row) => row.map((value) => (value === null || value <= 0 ? null : Math.log10(value))))
  const palette = Array.from({ length: 256 }, (_, i) => parsed(fieldColour(i / 255)))
  const [coldest, hottest] = [temperatures[0]!, temperatures[temperatures.length - 1]!]
  const [slowest, fastest] = [speeds[0]!, speeds[speeds.length - 1]!]
  const columns = Array.from({ length: width }, (_, i) =>
    place(speeds, slowest + ((i + 0.5) / width) * (fastest - slowest)),
  )
  const [logLow, span] = [Math.log10(scale.low), Math.log10(scale.high / scale.low)]
  for (let py = 0; py < height; py += 1) {
    const row = place(temperatures, hottest - ((py + 0.5) / height) * (hottest - coldest))
    for (let px = 0; px < width; px += 1) {
      const log = logAt(logs, row, columns[px]!)
      if (log === null) continue
      const share = Math.min(1, Math.max(0, (log - logLow) / span))
      const [r, g, b] = palette[Math.round(share * 255)]!
      pixels.set([r, g, b, 255], 4 * (py * width + px))
    }
  }
  return pixels
}
