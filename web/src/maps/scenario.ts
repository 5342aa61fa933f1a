/** A scenario as it is put together on screen. */
import { client, unwrap, type Schemas } from '@/api/client'
import type { UnitFamily } from '@/catalogue/units'

type Scenario = Schemas['Scenario']

const CHANGES = [
  'oil_grade', 'stud_bore_mm', 'without_adapter', 'adapter_holes', 'bypass_location', 'bypass_opening_kpa',
  'leak', 'regulator', 'anti_drain_lift_mm', 'loading_g',
] as const satisfies readonly (keyof Scenario)[]

/** Whether anything is changed in it. */
export function isChanged(scenario: Scenario): boolean {
  return (scenario.loading ?? 1) !== 1 || CHANGES.some((key) => scenario[key] !== undefined && scenario[key] !== null && scenario[key] !== false)
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
