/** A straight scale with round ticks, for small charts. */
export interface PlainScale {
  at: (value: number) => number
  ticks: number[]
}

/** Return round tick values from 0 to at most `high`, about `most` of them. */
export function roundTicks(high: number, most = 5): number[] {
  if (!(high > 0)) return [0]
  const raw = high / most
  const power = 10 ** Math.floor(Math.log10(raw))
  const step = power * ([1, 2, 5, 10].find((factor) => factor * power >= raw) ?? 10)
  return Array.from({ length: Math.floor(high / step + 1e-9) + 1 }, (_, i) => Number((i * step).toPrecision(12)))
}

/** Map 0 … `high` onto pixels from `start` to `end`. */
export function plainScale(high: number, start: number, end: number, most = 5): PlainScale {
  const span = high > 0 ? high : 1
  return { at: (value) => start + ((end - start) * value) / span, ticks: roundTicks(span, most) }
}

/** Return points as a path. */
export function linePath(xs: readonly number[], ys: readonly number[]): string {
  return xs.length ? `M${xs.map((x, i) => `${x.toFixed(2)} ${ys[i]!.toFixed(2)}`).join('L')}` : ''
}
