/** A scenario as it is put together on screen. */
import type { Schemas } from '@/api/client'

type Scenario = Schemas['Scenario']

const CHANGES = [
  'oil_grade', 'stud_bore_mm', 'without_adapter', 'adapter_holes', 'bypass_location', 'bypass_opening_kpa',
  'leak', 'regulator', 'anti_drain_lift_mm',
] as const satisfies readonly (keyof Scenario)[]

/** Whether anything is changed in it. */
export function isChanged(scenario: Scenario): boolean {
  return (scenario.loading ?? 1) !== 1 || CHANGES.some((key) => scenario[key] !== undefined && scenario[key] !== null && scenario[key] !== false)
}

/** Return a number typed in a field of the metric or inch family, or null for an empty field; NaN for what is no number. */
export function typedNumber(text: string, factor: number): number | null {
  const plain = text.trim().replace(',', '.')
  if (!plain) return null
  return /^\d*\.?\d+(e[-+]?\d+)?$/i.test(plain) ? Number((Number(plain) / factor).toPrecision(9)) : NaN
}

/** Read round holes such as `6 x 0.4` or `6 x 0.4 mm`; null for an empty text, undefined for what is none. */
export function typedHoles(text: string, factor: number): Schemas['RoundHoles'] | null | undefined {
  if (!text.trim()) return null
  const match = /^\s*(\d+)\s*[x×*]\s*([\d.,]+)\s*(mm|in|")?\s*$/i.exec(text)
  if (!match) return undefined
  const size = Number(match[2]!.replace(',', '.'))
  const perMm = match[3] ? (match[3].toLowerCase() === 'mm' ? 1 : 1 / 25.4) : factor
  if (!(size > 0) || Number(match[1]) < 1) return undefined
  return { count: Number(match[1]), diameter_mm: Number((size / perMm).toPrecision(9)) }
}
