/** What the map shows, in words, for those who do not see it; everything in it is read off the map. */
import type { OperatingMap } from '@/composables/useOperatingMap'
import { toDigits } from './numbers'
import { shownUnit, type UnitFamily } from './units'

/** The onset curve's value for a valve that never closes. [°C] */
export const NEVER_CLOSES = 150

interface Node {
  value: number
  temperature: number
  speed: number
}

function nodes(map: OperatingMap): Node[] {
  return map.element_kpa.flatMap((row, i) =>
    row.flatMap((value, j) =>
      value === null ? [] : [{ value, temperature: map.temperature_c[i]!, speed: map.speed_rpm[j]! }],
    ),
  )
}

/** Return the bypass at one speed, coming from the cold; null where it stays closed. */
function bypassAt(map: OperatingMap, i: number): string | null {
  const [closes, reopens] = [map.onset.temperature_c[i] ?? null, map.onset.reopens_c[i] ?? null]
  const speed = `at ${map.onset.speed_rpm[i]} rpm`
  const again = reopens === null ? '' : `opens ${closes === null ? '' : 'again '}at ${toDigits(reopens, 3)} °C`
  if (closes === null) return again ? `${again} ${speed}` : null
  if (closes >= NEVER_CLOSES) return `never closes ${speed}`
  return `closes at ${toDigits(closes, 3)} °C ${again ? `and ${again} ` : ''}${speed}`
}

export function mapSummary(map: OperatingMap, family: UnitFamily): string {
  const found = nodes(map)
  if (!found.length) return 'The oil will not pump anywhere on this map.'
  const unit = shownUnit('kpa', family)
  const low = found.reduce((best, node) => (node.value < best.value ? node : best))
  const high = found.reduce((best, node) => (node.value > best.value ? node : best))
  const told = (node: Node, digits: number) =>
    `${toDigits(node.value * unit.factor, digits)} ${unit.symbol} at ${toDigits(node.temperature, 3)} °C and ${node.speed} rpm`
  const span = `Element differential pressure from ${told(low, 2)} to ${told(high, 3)}.`
  const bypass = map.onset.speed_rpm.flatMap((_, i) => bypassAt(map, i) ?? [])
  if (!bypass.length) return `${span} The bypass stays closed everywhere.`
  const ends = bypass.length === 1 ? bypass : [bypass[0], bypass[bypass.length - 1]]
  return `${span} Coming from the cold the bypass ${ends.join(', and ')}.`
}
