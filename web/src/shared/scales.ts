/** Scales of the charts, by d3: straight ones with round ticks, and the 1-2-5 series that d3 does not have. */
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'

export interface Scale {
  at: (value: number) => number
  ticks: number[]
}

/** Map 0 … `high` onto pixels from `start` to `end`, with about so many round ticks. */
export function zeroBasedScale(high: number, start: number, end: number, ticks = 5): Scale {
  const scale = scaleLinear([0, high > 0 ? high : 1], [start, end])
  return { at: scale, ticks: scale.ticks(ticks) }
}

/** Return the numbers 1, 2, 5 × 10ⁿ between two bounds; d3's logarithmic ticks are every digit, or powers of ten alone. */
export function oneTwoFive(low: number, high: number): number[] {
  const levels: number[] = []
  for (let power = Math.floor(Math.log10(low)); power <= Math.ceil(Math.log10(high)); power += 1)
    for (const step of [1, 2, 5]) {
      const level = Number((step * 10 ** power).toPrecision(3))
      if (level >= low && level <= high) levels.push(level)
    }
  return levels
}

/** Return about so many round values strictly between two bounds. */
export function roundLevels(low: number, high: number, count = 5): number[] {
  return scaleLinear([low, high], [0, 1]).ticks(count).filter((level) => level > low && level < high)
}

/** Return points as a path. */
export function linePath(xs: readonly number[], ys: readonly number[]): string {
  return line<number>((x) => x, (_, i) => ys[i]!)([...xs]) ?? ''
}
