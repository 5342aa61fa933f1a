/** What the map shows, in words, for those who do not see it. */
import type { OperatingMap } from '@/composables/useOperatingMap'
import { toDigits } from './numbers'

const NEVER_CLOSES = 150

export function mapSummary(map: OperatingMap): string {
  const values = map.element_kpa.flat().filter((value): value is number => value !== null)
  if (!values.length) return 'The oil will not pump anywhere on this map.'
  const span =
    `Element differential pressure from ${toDigits(Math.min(...values), 2)} to ` +
    `${toDigits(Math.max(...values), 3)} kPa, highest when cold and fast.`
  const onset = map.onset.speed_rpm.flatMap((speed, i) => {
    const t = map.onset.temperature_c[i]
    return t === null || t === undefined ? [] : [{ speed, t }]
  })
  if (!onset.length) return `${span} The bypass stays closed everywhere.`
  const [first, last] = [onset[0]!, onset[onset.length - 1]!]
  const closes = (point: { speed: number; t: number }) =>
    point.t >= NEVER_CLOSES ? `never closes at ${point.speed} rpm` : `closes at ${toDigits(point.t, 3)} °C at ${point.speed} rpm`
  return `${span} Coming from the cold the bypass ${closes(first)} and ${closes(last)}.`
}
