/** Paint a field over temperature × speed or flow: colours, levels, interpolation. No DOM in here. */
import { interpolateLab } from 'd3-interpolate'
import { scaleLinear, scaleLog } from 'd3-scale'
import { catalogue } from '@/catalogue/catalogue'
import { oneTwoFive, roundLevels } from '@/shared/scales'

export type Grid = readonly (readonly (number | null)[])[]

/** Colour of a share 0 to 1 of the scale, as on paper. */
export function fieldColour(share: number): string {
  const t = Math.min(1, Math.max(0, share))
  const stops = catalogue().field_colours
  const next = stops.findIndex((stop, i) => i > 0 && t <= stop.share)
  const [pale, dark] = [stops[next - 1]!, stops[next]!]
  return interpolateLab(pale.colour, dark.colour)((t - pale.share) / (dark.share - pale.share))
}

function parsed(colour: string): [number, number, number] {
  const parts = colour.match(/\d+(\.\d+)?/g)
  if (colour.startsWith('#') || !parts) {
    return [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16)) as [number, number, number]
  }
  return parts.slice(0, 3).map(Number) as [number, number, number]
}

/** A scale of the field's values. */
export interface FieldScale {
  low: number
  high: number
  isLog: boolean
  /** Place of a value on the scale, 0 to 1; null where it has none. */
  share: (value: number | null) => number | null
  /** Round values inside the range. */
  levels: number[]
}

/** Return the scale that holds every value of a grid: logarithmic over decades, or straight. */
export function fieldScale(grid: Grid, isLog: boolean): FieldScale {
  let low = Infinity
  let high = -Infinity
  for (const row of grid)
    for (const value of row)
      if (value !== null && (!isLog || value > 0)) {
        low = Math.min(low, value)
        high = Math.max(high, value)
      }
  if (isLog) {
    if (!(low < high)) [low, high] = low === high ? [low / 2, low * 2] : [0.1, 100]
    const scale = scaleLog([low, high], [0, 1])
    const share = (value: number | null) => (value === null || value <= 0 ? null : scale(value))
    return { low, high, isLog, share, levels: oneTwoFive(low, high) }
  }
  if (low === high && low === 0) high = 1
  if (!(low < high)) [low, high] = low === high ? [low - Math.abs(low) / 2, high + Math.abs(high) / 2] : [0, 1]
  const scale = scaleLinear([low, high], [0, 1])
  const share = (value: number | null) => (value === null ? null : scale(value))
  return { low, high, isLog, share, levels: roundLevels(low, high) }
}

/** Where a value lies on an axis of rising positions: index of the node before it, and the share beyond. */
export function place(axis: readonly number[], value: number): { index: number; share: number } {
  let index = 0
  while (index < axis.length - 2 && axis[index + 1]! <= value) index += 1
  const share = (value - axis[index]!) / (axis[index + 1]! - axis[index]!)
  return { index, share: Math.min(1, Math.max(0, share)) }
}

/** Bilinear value of a grid of shares; a gap below takes the row above it, a gap above leaves none. */
function shareAt(shares: Grid, y: { index: number; share: number }, x: { index: number; share: number }): number | null {
  const [c, d] = [shares[y.index + 1]![x.index]!, shares[y.index + 1]![x.index + 1]!]
  if (c === null || d === null) return null
  const a = shares[y.index]![x.index] ?? c
  const b = shares[y.index]![x.index + 1] ?? d
  const below = a + (b - a) * x.share
  const above = c + (d - c) * x.share
  return below + (above - below) * y.share
}

/** Paint the field into RGBA pixels, first row on top (highest temperature); gaps stay clear. */
export function paintField(
  grid: Grid,
  temperatures: readonly number[],
  across: readonly number[],
  scale: FieldScale,
  width: number,
  height: number,
): Uint8ClampedArray<ArrayBuffer> {
  const pixels = new Uint8ClampedArray(width * height * 4)
  const shares = grid.map((row) => row.map(scale.share))
  const palette = Array.from({ length: 256 }, (_, i) => parsed(fieldColour(i / 255)))
  const [coldest, hottest] = [temperatures[0]!, temperatures[temperatures.length - 1]!]
  const [first, last] = [across[0]!, across[across.length - 1]!]
  const columns = Array.from({ length: width }, (_, i) => place(across, first + ((i + 0.5) / width) * (last - first)))
  for (let py = 0; py < height; py += 1) {
    const row = place(temperatures, hottest - ((py + 0.5) / height) * (hottest - coldest))
    for (let px = 0; px < width; px += 1) {
      const share = shareAt(shares, row, columns[px]!)
      if (share === null) continue
      const [r, g, b] = palette[Math.round(Math.min(1, Math.max(0, share)) * 255)]!
      pixels.set([r, g, b, 255], 4 * (py * width + px))
    }
  }
  return pixels
}
