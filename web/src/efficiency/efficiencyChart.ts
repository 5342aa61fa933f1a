/** Efficiency over particle size: scales, points, and what the crosshair reads. Data in, places out. */
import { scaleLinear, scaleLog } from 'd3-scale'
import type { Schemas } from '@/api/client'
import { oneTwoFive } from '@/shared/scales'

type Station = Schemas['EfficiencyStationOut']

export type Upward = 'percent' | 'beta'

export interface Box {
  left: number
  right: number
  top: number
  bottom: number
}

const LARGEST_BETA = 100_000

/** Return the filtration ratio of an efficiency in per cent, 1 where nothing is held back. */
export function betaOf(percent: number): number {
  return percent >= 100 ? LARGEST_BETA : Math.max(1, 100 / (100 - percent))
}

/** Return the sizes between which all that is known lies, in µm(c). */
export function sizeRange(station: Station): [number, number] {
  const sizes = [
    ...(station.test?.points.flatMap((point) => point.sizes_um_c) ?? []),
    ...station.claims.flatMap((claim) => claim.sizes_um_c),
    5,
    30,
  ]
  return [Math.max(1, Math.min(...sizes) * 0.75), Math.max(...sizes) * 1.35]
}

export interface Placing {
  x: (size: number) => number
  y: (percent: number) => number
  size: (x: number) => number
  across: { at: number; label: string }[]
  up: { at: number; label: string }[]
}

/** Return where sizes and efficiencies lie in a box. */
export function placing(station: Station, upward: Upward, box: Box): Placing {
  const [low, high] = sizeRange(station)
  const x = scaleLog([low, high], [box.left, box.right]).clamp(true)
  const across = [...new Set([...oneTwoFive(low, high), ...[3, 4, 6, 8, 15, 30, 40].filter((size) => size > low && size < high)])]
    .sort((a, b) => a - b)
    .map((size) => ({ at: x(size), label: String(size) }))
  const clear = across.filter((tick, i) => i === 0 || tick.at - across[i - 1]!.at > 16)
  if (upward === 'percent') {
    const y = scaleLinear([0, 100], [box.bottom, box.top]).clamp(true)
    return { x, y, size: (at) => x.invert(at), across: clear, up: [0, 20, 40, 60, 80, 90, 100].map((item) => ({ at: y(item), label: String(item) })) }
  }
  const betas = (station.test?.points ?? []).flatMap((point) => [point.beta ?? 1, point.beta_high ?? point.beta_low ?? 1])
  const claimed = station.claims.map((claim) => betaOf(claim.percent ?? 0))
  const most = Math.min(LARGEST_BETA, Math.max(200, ...betas, ...claimed) * 1.5)
  const log = scaleLog([1, most], [box.bottom, box.top]).clamp(true)
  return {
    x,
    y: (percent) => log(betaOf(percent)),
    size: (at) => x.invert(at),
    across: clear,
    up: [1, 2, 5, 10, 20, 75, 200, 1000, 10_000].filter((beta) => beta <= most).map((beta) => ({ at: log(beta), label: String(beta) })),
  }
}

export interface Read {
  size: number
  percent: number
  low: number | null
  high: number | null
  of: string
  isEstimate: boolean
  extrapolated: boolean
}

/** Return what the best curve there is says nearest to a size; nothing where there is none. */
export function readAt(station: Station, size: number): Read | null {
  const nearest = (sizes: readonly number[]) =>
    sizes.reduce((closest, one, i) => (Math.abs(Math.log(one / size)) < Math.abs(Math.log(sizes[closest]! / size)) ? i : closest), 0)
  const curve = station.test?.curves[0]
  if (station.test && station.test.curves.length === 1 && curve) {
    const i = nearest(curve.sizes_um_c)
    const at = curve.sizes_um_c[i]!
    return {
      size: at, percent: curve.percent[i]!, low: curve.low_percent[i] ?? null, high: curve.high_percent[i] ?? null, of: 'by the curve through the counts', isEstimate: false,
      extrapolated: at < curve.counted_from_um_c || at > curve.counted_to_um_c,
    }
  }
  const estimate = station.estimate
  if (station.test || !estimate) return null
  const i = nearest(estimate.sizes_um_c)
  return {
    size: estimate.sizes_um_c[i]!, percent: estimate.percent[i]!, low: estimate.low_percent[i]!, high: estimate.high_percent[i]!,
    of: 'by the screening estimate, never a rating', isEstimate: true, extrapolated: estimate.sizes_um_c[i]! > estimate.valid_to_um_c,
  }
}

/** Return how many of a thousand particles pass. */
export function passing(percent: number): number {
  return 10 * (100 - percent)
}
