/** Bands and lines of a slice. Data in, paths out. */
import { scaleLinear, scaleLog } from 'd3-scale'
import { area, line } from 'd3-shape'
import { oneTwoFive } from './scales'

type Values = readonly (number | null)[]

export interface BandIn {
  along: readonly number[]
  value: Values
  low: Values
  high: Values
}

export interface UpScale {
  at: (value: number) => number
  ticks: number[]
}

/** Return the scale up that holds every band: logarithmic where asked and possible. */
export function upScale(bands: readonly BandIn[], isLog: boolean, bottom: number, top: number): UpScale {
  const all = bands.flatMap((band) => [...band.value, ...band.low, ...band.high]).filter((value) => value !== null)
  const positive = all.filter((value) => value > 0)
  if (isLog && positive.length) {
    const [low, high] = [Math.min(...positive), Math.max(...positive)]
    const scale = scaleLog([low / 1.1, high * 1.1], [bottom, top])
    return { at: (value) => scale(Math.max(value, low / 1.1)), ticks: oneTwoFive(low, high) }
  }
  const [low, high] = [Math.min(0, ...all), Math.max(0, ...all)]
  const scale = scaleLinear([low, high > low ? high : low + 1], [bottom, top]).nice(5)
  return { at: scale, ticks: scale.ticks(5) }
}

interface Placed {
  x: number
  low: number
  high: number
}

/** Return the outline of a band, broken where there is none. */
export function bandPath(band: BandIn, x: (value: number) => number, y: UpScale): string {
  const points = band.along.map((at, i) => {
    const [low, high] = [band.low[i] ?? null, band.high[i] ?? null]
    return low === null || high === null ? null : { x: x(at), low: y.at(low), high: y.at(high) }
  })
  return (
    area<Placed | null>()
      .defined((point) => point !== null)
      .x((point) => point!.x)
      .y0((point) => point!.low)
      .y1((point) => point!.high)(points) ?? ''
  )
}

/** Return values as a line, broken where there is none. */
export function valuePath(along: readonly number[], values: Values, x: (value: number) => number, y: UpScale): string {
  return (
    line<number | null>()
      .defined((value) => value !== null)
      .x((_, i) => x(along[i]!))
      .y((value) => y.at(value!))([...values]) ?? ''
  )
}

/** Patterns of lines, so that colour is never the only sign. */
export const DASHES = ['', '8 3', '2 3', '10 3 2 3', '5 2', '1 2'] as const
