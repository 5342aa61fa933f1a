/** Whether a map can be computed: the sheet says what is still needed, so that none is asked for in vain. */
import { ProblemError, type Schemas } from '@/api/client'

type Need = Schemas['OpenNeedOut']
type Scenario = Schemas['Scenario']

/** Inputs that a scenario provides and a filter or an engine may lack, as a way of a need names them. */
const BROUGHT: Partial<Record<keyof Scenario, string>> = {
  oil_grade: 'oil',
  stud_bore_mm: 'engine.stud_bore',
}

/** Return the needs that a scenario leaves open. */
export function stillNeeded(needs: readonly Need[], scenario: Scenario | null): Need[] {
  const brought = new Set(Object.entries(BROUGHT).flatMap(([name, key]) => (scenario?.[name as keyof Scenario] != null ? [key] : [])))
  return needs.filter((need) => !need.ways.some((way) => way.left.every((key) => brought.has(key))))
}

/** Throw what the server would say of a map that cannot be computed yet. */
export function requireReady(needs: readonly Need[], scenario: Scenario | null): void {
  const open = stillNeeded(needs, scenario)
  if (!open.length) return
  const detail = `This cannot be computed yet: it needs ${open.map((need) => need.title).join(', ')}.`
  throw new ProblemError({ detail, where: '', missing: open.flatMap((need) => need.ways[0]?.left ?? []) }, 409)
}
