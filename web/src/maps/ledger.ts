/** The ledger at one point: each part's share of the loss from pump to gallery, and the pressure after each. */
import type { OperatingMap } from './useOperatingMap'

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

/** Return what a person calls a part of the ledger. */
export function partTitle(name: string): string {
  return TITLES[name] ?? name
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
    title: partTitle(part.name),
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

const percent = (share: number) => `${Math.round(100 * share)} %`

/** Say where one is and which part takes most of the filter's own loss, with the shares of the next. */
export function ledgerSentence(rows: readonly LedgerRow[], temperature: number, speed: number): string {
  const own = rows.filter((row) => !ENGINE_SIDE.has(row.name)).sort((a, b) => b.total - a.total)
  const whole = own.reduce((sum, row) => sum + row.total, 0)
  const [largest, ...others] = own
  if (!largest || !(whole > 0)) return ''
  const named = (row: LedgerRow) => `${row.title.toLowerCase()} ${percent(row.total / whole)}`
  const next = others.slice(0, 2).filter((row) => row.total / whole >= 0.005)
  const tail = next.length ? `, then ${next.map(named).join(' and ')}` : ''
  const verb = /(holes|channels)$/.test(largest.title) ? 'take' : 'takes'
  const takes = largest.total / whole >= 0.5 ? `${verb} most of` : `${verb} the largest share of`
  return `At ${String(temperature).replace('-', '−')} °C and ${speed} rpm the ${largest.title.toLowerCase()} ${takes} the filter's loss: ${percent(largest.total / whole)}${tail}.`
}

export interface Step {
  name: string
  title: string
  /** Pressure before and after the part. */
  from: number
  to: number
}

/** Return the pressure from pump to gallery, part by part. */
export function staircase(rows: readonly LedgerRow[], pump: number): Step[] {
  let pressure = pump
  return rows.map((row) => {
    const step = { name: row.name, title: row.title, from: pressure, to: pressure - row.total }
    pressure = step.to
    return step
  })
}
