/** What a chart of lines is made of: its axes, by shares of the frame, and what lies in it. */
import { scaleLinear, scaleLog } from 'd3-scale'
import { plainNumber } from '@/shared/numbers'
import { oneTwoFive } from '@/shared/scales'

type Values = readonly (number | null)[]

export interface Axis {
  /** Share of the frame at which a value lies, from left or below. */
  share: (value: number) => number
  value: (share: number) => number
  ticks: readonly number[]
  label: (tick: number) => string
  title: string
  /** What its values are, as the crosshair says them; the title, where it has none. */
  name?: string
}
export interface ChartLine {
  key: string
  /** As the crosshair reads it; without one it does not. */
  name?: string
  /** At its end. */
  label?: string
  xs: readonly number[]
  ys: Values
  low?: Values
  high?: Values
  ink: string
  /** Of its band; the ink, thin, where it has none. */
  wash?: string
  dash?: string
  width?: number
  /** Whether nothing lies between its places: only they are read. */
  isPoints?: boolean
}
export interface ChartPoint {
  key: string | number
  x: number
  y: number | null
  low?: number | null
  high?: number | null
  words?: string
  radius?: number
  isOpen?: boolean
  /** Whether it is the least that is said. */
  isBound?: boolean
  isFaint?: boolean
}
export interface ChartMark {
  x?: number
  y?: number
  /** Below it. */
  words?: string
  title?: string
  ink?: string
  dash?: string
}

/** Patterns of lines, so that colour is never the only sign. */
export const DASHES = ['', '8 3', '2 3', '10 3 2 3', '5 2', '1 2'] as const

const plain = (tick: number) => plainNumber(tick, 6)

/** Return a straight axis with about so many round ticks, or those given. */
export function linear(low: number, high: number, title = '', { count = 5, ticks }: { count?: number; ticks?: readonly number[] } = {}): Axis {
  const scale = scaleLinear([low, high > low ? high : low + 1], [0, 1])
  return { share: scale, value: (share) => scale.invert(share), ticks: ticks ?? scale.ticks(count), label: plain, title }
}

/** Return a logarithmic axis; what is below it lies at its end. */
export function logarithmic(low: number, high: number, title = '', ticks: readonly number[] = oneTwoFive(low, high)): Axis {
  const scale = scaleLog([low, high], [0, 1])
  return { share: (value) => scale(Math.max(value, low)), value: (share) => scale.invert(share), ticks, label: plain, title }
}

/** Return the axis that holds values and their bands: logarithmic where asked and possible, else from nought. */
export function holding(lines: readonly { ys: Values; low?: Values; high?: Values }[], isLog: boolean, title = ''): Axis {
  const all = lines.flatMap((line) => [...line.ys, ...(line.low ?? []), ...(line.high ?? [])]).filter((value) => value !== null)
  const positive = all.filter((value) => value > 0)
  if (isLog && positive.length) {
    const [low, high] = [Math.min(...positive), Math.max(...positive)]
    return logarithmic(low / 1.1, high * 1.1, title, oneTwoFive(low, high))
  }
  const [low, high] = scaleLinear([Math.min(0, ...all), Math.max(0, ...all) || 1], [0, 1]).nice(5).domain() as [number, number]
  return linear(low, high, title)
}
