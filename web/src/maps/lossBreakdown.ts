/** The pressure-loss breakdown at one point: each part's share of the loss from pump to gallery, and the pressure after each. */
import { catalogue, term } from '@/catalogue/catalogue'
import type { OperatingMap } from './useOperatingMap'

export interface LossRow {
  name: string
  title: string
  total: number
  viscous: number
  inertial: number
  /** Held back whatever the flow. */
  spring: number
  share: number
}

/** Return the pressure-loss breakdown at a node of a map, from pump to gallery or of the filter alone; empty where the oil does not pump. */
export function lossesAt(map: Pick<OperatingMap, 'loss_breakdown'>, row: number, column: number): LossRow[] {
  const rows = map.loss_breakdown.map((part) => ({
    name: part.name,
    title: term('loss_part', part.name),
    viscous: part.viscous_kpa[row]?.[column] ?? null,
    inertial: part.inertial_kpa[row]?.[column] ?? null,
    spring: part.spring_kpa?.[row]?.[column] ?? 0,
  }))
  const solved = rows.flatMap((part) =>
    part.viscous === null || part.inertial === null
      ? []
      : [{ ...part, viscous: part.viscous, inertial: part.inertial, total: part.viscous + part.inertial + part.spring }],
  )
  const whole = solved.reduce((sum, part) => sum + part.total, 0)
  return solved.map((part) => ({ ...part, share: part.total / whole }))
}

const percent = (share: number) => `${Math.round(100 * share)} %`

/** Say where one is and which part takes most of the filter's own loss, with the shares of the next. */
export function lossSentence(rows: readonly LossRow[], temperature: string, across: string): string {
  const own = rows.filter((row) => !catalogue().engine_side.includes(row.name)).sort((a, b) => b.total - a.total)
  const whole = own.reduce((sum, row) => sum + row.total, 0)
  const [largest, ...others] = own
  if (!largest || !(whole > 0)) return ''
  const named = (row: LossRow) => `${row.title.toLowerCase()} ${percent(row.total / whole)}`
  const next = others.slice(0, 2).filter((row) => row.total / whole >= 0.005)
  const tail = next.length ? `, then ${next.map(named).join(' and ')}` : ''
  const verb = /(holes|channels|media)$/i.test(largest.title) ? 'take' : 'takes'
  const takes = largest.total / whole >= 0.5 ? `${verb} most of` : `${verb} the largest share of`
  return `At ${temperature} and ${across} the ${largest.title.toLowerCase()} ${takes} the filter's loss: ${percent(largest.total / whole)}${tail}.`
}

export interface Step {
  name: string
  title: string
  /** Pressure before and after the part. */
  from: number
  to: number
}

/** Return the pressure from pump to gallery, part by part. */
export function pressureProfile(rows: readonly LossRow[], pump: number): Step[] {
  let pressure = pump
  return rows.map((row) => {
    const step = { name: row.name, title: row.title, from: pressure, to: pressure - row.total }
    pressure = step.to
    return step
  })
}
