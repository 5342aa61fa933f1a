/** A link to what the map shows: crosshair, condition, quantity, size and scenario, so that it opens the same after a restart. */
import { USUAL_SIZE_UM, type Condition, type Scenario } from './useOperatingMap'
import { isChanged } from './scenario'

/** Parts of the map's place that a link carries. */
export interface LinkedPlace {
  temperature: number
  speed: number
  flow: number
  condition: Condition
  quantity: string
  kind: 'engine' | 'alone'
  size: number
  draft: Scenario
}

type Query = Record<string, unknown>

/** Stations whose view depends on the crosshair and the scenario. */
export const LINKED_STATIONS: ReadonlySet<string> = new Set(['map', 'comparison'])

/** Return the place as parts of an address; what is as usual is left out. */
export function queryOf(place: LinkedPlace): Record<string, string> {
  const carried: Record<string, string> = {
    at: `${place.temperature},${place.speed}`,
    condition: place.condition,
    quantity: place.quantity,
  }
  if (place.kind === 'alone') Object.assign(carried, { kind: 'alone', flow: String(place.flow) })
  if (place.size !== USUAL_SIZE_UM) carried.size = String(place.size)
  if (isChanged(place.draft)) carried.scenario = JSON.stringify(place.draft)
  return carried
}

const inside = (text: unknown, low: number, high: number): number | undefined => {
  const value = typeof text === 'string' && text.trim() ? Number(text) : NaN
  return value >= low && value <= high ? value : undefined
}

/** Return what an address says of the place; what it does not say, or says wrongly, is not there. */
export function placeOf(query: Query, quantities: readonly string[]): Partial<LinkedPlace> {
  const [temperature, speed] = typeof query.at === 'string' ? query.at.split(',') : []
  const carried: Partial<LinkedPlace> = {
    temperature: inside(temperature, -60, 200),
    speed: inside(speed, 100, 20000),
    flow: inside(query.flow, 0.01, 500),
    size: inside(query.size, 1, 100),
    condition: query.condition === 'steady' || query.condition === 'filling' ? query.condition : undefined,
    quantity: quantities.find((quantity) => quantity === query.quantity),
    kind: query.kind === 'alone' ? 'alone' : undefined,
    draft: scenarioOf(query.scenario),
  }
  return Object.fromEntries(Object.entries(carried).filter(([, value]) => value !== undefined))
}

function scenarioOf(text: unknown): Scenario | undefined {
  if (typeof text !== 'string') return undefined
  try {
    const parsed: unknown = JSON.parse(text)
    if (typeof parsed !== 'object' || parsed === null || Array.isArray(parsed)) return undefined
    const scenario = parsed as Scenario
    return typeof scenario.name === 'string' && isChanged(scenario) ? scenario : undefined
  } catch {
    return undefined
  }
}
