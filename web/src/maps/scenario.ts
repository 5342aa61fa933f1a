/** A scenario as it is put together on screen. */
import { client, unwrap, type Schemas } from '@/api/client'
import { term } from '@/catalogue/catalogue'
import { shownUnit, type UnitFamily, type WireUnit } from '@/catalogue/units'
import { plainNumber } from '@/shared/numbers'

type Scenario = Schemas['Scenario']

const CHANGES = [
  'oil_grade', 'stud_bore_mm', 'without_adapter', 'adapter_holes', 'bypass_location', 'bypass_opening_kpa',
  'leak', 'regulator', 'anti_drain_lift_mm', 'loading_g',
] as const satisfies readonly (keyof Scenario)[]

/** Whether anything is changed in it. */
export function isChanged(scenario: Scenario): boolean {
  return (scenario.loading ?? 1) !== 1 || CHANGES.some((key) => scenario[key] !== undefined && scenario[key] !== null && scenario[key] !== false)
}

export interface ChangedInput {
  words: string
  /** Takes it back. */
  reset: Partial<Scenario>
}

/** Every input that is thought to be different, in words of a unit family, and what takes each back. */
export function changedInputs(scenario: Scenario, family: UnitFamily): ChangedInput[] {
  if (!isChanged(scenario)) return []
  const sized = (value: number | null | undefined, unit: WireUnit) => {
    const { symbol, factor } = shownUnit(unit, family)
    return `${plainNumber((value ?? 0) * factor)} ${symbol}`
  }
  const holes = (given: Schemas['RoundHoles'] | null | undefined) => (given ? `${given.count} × ${sized(given.diameter_mm, 'mm')}` : '')
  const words: Partial<Record<keyof Scenario, string>> = {
    loading: (scenario.loading ?? 1) !== 1 ? `media ${plainNumber(scenario.loading!)} times as resistant` : '',
    loading_g: scenario.loading_g ? `${sized(scenario.loading_g, 'g')} of dust` : '',
    oil_grade: scenario.oil_grade ? `oil ${scenario.oil_grade}` : '',
    stud_bore_mm: scenario.stud_bore_mm ? `stud bore ${sized(scenario.stud_bore_mm, 'mm')}` : '',
    without_adapter: scenario.without_adapter ? 'without the adapter' : '',
    adapter_holes: scenario.adapter_holes ? `adapter holes ${holes(scenario.adapter_holes)}` : '',
    bypass_location: scenario.bypass_location ? `bypass: ${term('bypass_location', scenario.bypass_location)}` : '',
    bypass_opening_kpa: scenario.bypass_opening_kpa ? `bypass opening ${sized(scenario.bypass_opening_kpa, 'kpa')}` : '',
    leak: scenario.leak ? `defects ${holes(scenario.leak)}` : '',
    regulator: scenario.regulator ? `regulator ${term('regulator_fault', scenario.regulator)}` : '',
    anti_drain_lift_mm: scenario.anti_drain_lift_mm ? `anti-drainback lift ${sized(scenario.anti_drain_lift_mm, 'mm')}` : '',
  }
  return Object.entries(words)
    .filter(([, text]) => text)
    .map(([key, text]) => ({ words: text, reset: { [key]: null } }))
}

/**
 * Return what a value as it was typed changes in a scenario, or throw what is wrong with it. Only its own fields come
 * back, since others may have been changed while the server was asked.
 */
export async function typedChanges(scenario: Scenario, key: string, text: string, family: UnitFamily): Promise<Partial<Scenario>> {
  const changed = await unwrap(client.POST('/api/scenario/value', { body: { scenario, key, text, family } }))
  const fields = (Object.keys(changed) as (keyof Scenario)[]).filter(
    (field) => JSON.stringify(changed[field] ?? null) !== JSON.stringify(scenario[field] ?? null),
  )
  return Object.fromEntries(fields.map((field) => [field, changed[field]]))
}
