/** The ledger at one point: each part's share of the loss from pump to gallery. */
import type { OperatingMap } from '@/composables/useOperatingMap'

const TITLES: Record<string, string> = {
  cooler: 'Oil cooler',
  head: 'Filter head',
  inlet_holes: 'Inlet holes',
  anti_drain: 'Anti-drain valve',
  media: 'Media',
  pleat_channels: 'Pleat channels',
  axial_way: 'Way along the can',
  centre_tube: 'Centre tube',
  outlet: 'Outlet bore',
  adapter: 'Adapter',
}

export interface LedgerRow {
  name: string
  title: string
  total: number
  viscous: number
  inertial: number
  /** Held back whatever the flow. */
  spring: number
  share: number
}

/** Return the ledger at a node of the map, from pump to gallery; empty where the oil does not pump. */
export function ledgerAt(map: OperatingMap, row: number, column: number): LedgerRow[] {
  const rows = map.ledger.map((part) => ({
    name: part.name,
    title: TITLES[part.name] ?? part.name,
    viscous: part.viscous_kpa[row]?.[column] ?? null,
    inertial: part.inertial_kpa[row]?.[column] ?? null,
    spring: part.spring_kpa,
  }))
  const solved = rows.flatMap((part) =>
    part.viscous === null || part.inertial === null
      ? []
      : [{ ...part, viscous: part.viscous, inertial: part.inertial, total: part.viscous + part.inertial + part.spring }],
  )
  const whole = solved.reduce((sum, part) => sum + part.total, 0)
  return solved.map((part) => ({ ...part, share: part.total / whole }))
}

/** Parts that belong to the engine whatever filter is fitted. */
const ENGINE_SIDE: ReadonlySet<string> = new Set(['cooler', 'head'])

/** Say which part takes most of the filter's own loss. */
export function ledgerSentence(rows: readonly LedgerRow[]): string {
  const own = rows.filter((row) => !ENGINE_SIDE.has(row.name)).sort((a, b) => b.total - a.total)
  const [largest, second] = own
  if (!largest) return ''
  const whole = own.reduce((sum, row) => sum + row.total, 0)
  const share = (row: LedgerRow) => `${Math.round((100 * row.total) / whole)} %`
  const tail = second ? `, then ${second.title.toLowerCase()} with ${share(second)}` : ''
  return `Of the filter's own loss, ${largest.title.toLowerCase()} takes most: ${share(largest)}${tail}.`
}
