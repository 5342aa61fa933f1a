/** Lines over the map: levels of equal pressure, the bypass-onset curve, the bypass region. Data in, paths out. */
import { contours } from 'd3-contour'
import type { ScaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { catalogue } from '@/catalogue/catalogue'
import type { FieldScale, Grid } from './mapField'

export interface MapScales {
  x: ScaleLinear<number, number>
  y: ScaleLinear<number, number>
}

/** A curve of temperatures over speed or flow: where something first closes coming from the cold, and opens again. */
export interface ThresholdLine {
  across: readonly number[]
  closes: readonly (number | null)[]
  reopens: readonly (number | null)[]
}

export interface LevelLine {
  level: number
  path: string
  label: { x: number; y: number } | null
}

/** Return the lines of equal value with a place for each label. */
export function levelLines(
  grid: Grid,
  temperatures: readonly number[],
  across: readonly number[],
  scale: FieldScale,
  scales: MapScales,
): LevelLine[] {
  const [nx, ny] = [across.length, temperatures.length]
  const shares = filledDown(grid, scale).flat()
  const column = Math.round(0.62 * (nx - 1))
  const toX = (u: number) => scales.x(across[0]! + ((u - 0.5) / (nx - 1)) * (across[nx - 1]! - across[0]!))
  const toY = (v: number) =>
    scales.y(temperatures[0]! + ((v - 0.5) / (ny - 1)) * (temperatures[ny - 1]! - temperatures[0]!))
  const shapes = contours().size([nx, ny]).thresholds(scale.levels.map((level) => scale.share(level)!))(shares)
  return shapes.map((shape, i) => ({
    level: scale.levels[i]!,
    path: shape.coordinates
      .flatMap((polygon) => polygon.map((ring) => openRuns(ring as [number, number][], nx, ny)))
      .flat()
      .map((run) => line<[number, number]>((p) => toX(p[0]), (p) => toY(p[1]))(run) ?? '')
      .join(''),
    label: labelPlace(grid, temperatures, column, scale.levels[i]!, scales.x(across[column]!), scales.y),
  }))
}

/** Return the shares of the scale, with cold rows in which the oil does not pump filled from the row above them. */
function filledDown(grid: Grid, scale: FieldScale): number[][] {
  const shares = grid.map((row) => row.map((value) => scale.share(value) ?? NaN))
  for (let row = shares.length - 2; row >= 0; row -= 1)
    shares[row] = shares[row]!.map((value, column) => (Number.isNaN(value) ? shares[row + 1]![column]! : value))
  return shares
}

/** Cut a ring where it only follows the border of the grid, which is no line of equal value. */
function openRuns(ring: [number, number][], nx: number, ny: number): [number, number][][] {
  const onBorder = ([u, v]: [number, number]) => u <= 0.5 || u >= nx - 0.5 || v <= 0.5 || v >= ny - 0.5
  const runs: [number, number][][] = []
  let run: [number, number][] = []
  ring.forEach((point, i) => {
    const previous = ring[i - 1]
    if (onBorder(point)) {
      if (run.length) runs.push([...run, point])
      run = []
    } else {
      if (!run.length && previous && onBorder(previous)) run.push(previous)
      run.push(point)
    }
  })
  if (run.length > 1) runs.push(run)
  return runs
}

function labelPlace(
  grid: Grid,
  temperatures: readonly number[],
  column: number,
  level: number,
  x: number,
  y: ScaleLinear<number, number>,
): { x: number; y: number } | null {
  for (let row = 0; row < grid.length - 1; row += 1) {
    const [here, above] = [grid[row]![column], grid[row + 1]![column]]
    if (here == null || above == null || (here - level) * (above - level) > 0 || here === above) continue
    const share = (here - level) / (here - above)
    return { x, y: y(temperatures[row]! + share * (temperatures[row + 1]! - temperatures[row]!)) }
  }
  return null
}

/** Split places with a value into unbroken runs. */
function runs(across: readonly number[], values: readonly (number | null)[]): [number, number][][] {
  const outlines: [number, number][][] = []
  let run: [number, number][] = []
  across.forEach((where, i) => {
    const value = values[i]
    if (value == null) {
      if (run.length) outlines.push(run)
      run = []
    } else run.push([where, value])
  })
  if (run.length) outlines.push(run)
  return outlines
}

/** Return the path of a threshold, and of the curve where it is passed again. */
export function thresholdPath(curve: ThresholdLine, scales: MapScales): string {
  const draw = line<[number, number]>((p) => scales.x(p[0]), (p) => scales.y(p[1]))
  const closing = curve.closes.map((t) => (t !== null && t >= catalogue().never_closes_c ? null : t))
  return [...runs(curve.across, closing), ...runs(curve.across, curve.reopens)].map((run) => draw(run) ?? '').join('')
}

/** Return the outline of the region in which something is open. */
export function openRegion(curve: ThresholdLine, coldest: number, hottest: number, scales: MapScales): string {
  const area = (run: [number, number][], edge: number) => {
    const [first, last] = [run[0]!, run[run.length - 1]!]
    const along = run.map(([where, t]) => `${scales.x(where)},${scales.y(Math.min(hottest, t))}`)
    return `M${scales.x(first[0])},${scales.y(edge)}L${along.join('L')}L${scales.x(last[0])},${scales.y(edge)}Z`
  }
  return [
    ...runs(curve.across, curve.closes).map((run) => area(run, coldest)),
    ...runs(curve.across, curve.reopens).map((run) => area(run, hottest)),
  ].join('')
}
