/** How results are shown in each unit family; what was typed is never changed. */
import type { Schemas } from '@/api/client'
import { catalogue, type Catalogue } from './catalogue'

export type UnitFamily = 'metric' | 'inch'
export type ShownUnit = Schemas['ShownUnitOut']
/** Suffix of a key of an answer, such as `kpa`. */
export type WireUnit = keyof Catalogue['units']

/** Return symbol and factor of a wire unit in a family. */
export function shownUnit(wire: WireUnit, family: UnitFamily): ShownUnit {
  return catalogue().units[wire]![family]
}
