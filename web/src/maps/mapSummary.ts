/** A map in words, for those who do not see it; everything is read off the map. */
import type { Schemas } from '@/api/client'
import type { MapField } from './MapChart.vue'
import { catalogue } from '@/catalogue/catalogue'
import { inUnit } from '@/catalogue/units'
import { significant } from '@/shared/numbers'

interface Node {
  value: number
  temperature: number
  across: number
}

type Described = Pick<MapField, 'grid' | 'temperatures' | 'temperatureUnit' | 'across' | 'unit' | 'onset'>

function nodes(field: Described): Node[] {
  return field.grid.flatMap((row, i) =>
    row.flatMap((value, j) =>
      value === null ? [] : [{ value, temperature: field.temperatures[i]!, across: field.across[j]! }],
    ),
  )
}

/** Return the bypass at one place across, coming from the cold; null where it stays closed. */
function bypassAt(field: Described, i: number, acrossUnit: string): string | null {
  const [closes, reopens] = [field.onset.closes[i] ?? null, field.onset.reopens[i] ?? null]
  const where = `at ${field.onset.across[i]} ${acrossUnit}`
  const degrees = (value: number) => `${significant(value, 3)} ${field.temperatureUnit.symbol}`
  const again = reopens === null ? '' : `opens ${closes === null ? '' : 'again '}at ${degrees(reopens)}`
  if (closes === null) return again ? `${again} ${where}` : null
  if (closes >= inUnit(catalogue().never_closes_c, field.temperatureUnit)) return `never closes ${where}`
  return `closes at ${degrees(closes)} ${again ? `and ${again} ` : ''}${where}`
}

/** Say from where to where a quantity goes, and what the bypass does. */
export function mapSummary(title: string, field: Described, acrossUnit: string): string {
  const all = nodes(field)
  if (!all.length) return 'The oil is below the pumpability limit everywhere on this map.'
  const { unit } = field
  const low = all.reduce((best, node) => (node.value < best.value ? node : best))
  const high = all.reduce((best, node) => (node.value > best.value ? node : best))
  const described = (node: Node, digits: number) =>
    `${significant(node.value * unit.factor, digits)} ${unit.symbol} at ${significant(node.temperature, 3)} ${field.temperatureUnit.symbol} and ${node.across} ${acrossUnit}`
  const span = `${title} from ${described(low, 2)} to ${described(high, 3)}.`
  const bypass = field.onset.across.flatMap((_, i) => bypassAt(field, i, acrossUnit) ?? [])
  if (!bypass.length) return `${span} The bypass stays closed everywhere.`
  const ends = bypass.length === 1 ? bypass : [bypass[0], bypass[bypass.length - 1]]
  return `${span} Coming from the cold the bypass ${ends.join(', and ')}.`
}

/** Say what the efficiency of the media comes from. */
export function efficiencySource(known: Schemas['EfficiencyAtOut']): string {
  if (known.value_percent === null && known.low_percent === null && known.high_percent === null)
    return `Nothing says what the media capture at ${known.size_um} µm(c): a claim with a size, or family and thickness of the media.`
  if (known.basis === 'counts') return known.value_percent === null ? 'From bounds of a counted test, at its flow and viscosity.' : 'From a counted test, at its flow and viscosity.'
  const of = known.basis === 'claim' ? 'a claim' : 'a screening estimate, never a rating'
  if (known.value_percent !== null) return `From ${of}.`
  return known.low_percent === null ? `At most this, from the upper bound of ${of}.` : `At least this, from the lower bound of ${of}.`
}
