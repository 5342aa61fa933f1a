/** How results are shown in each unit family; what was typed is never changed. */
import type { Schemas } from '@/api/client'
import { catalogue, type Catalogue } from './catalogue'

export type UnitFamily = 'metric' | 'inch'
export type ShownUnit = Schemas['ShownUnitOut']
/** Suffix of a key of an answer, such as `kpa`. */
export type WireUnit = keyof Catalogue['units']

/** Return how a wire unit is shown in a family. */
export function shownUnit(wire: WireUnit, family: UnitFamily): ShownUnit {
  return catalogue().units[wire]![family]
}

/** Return a number of the wire in a unit as it is shown: nothing of it is rounded off, or 99.99996 % would become 100. */
export function inUnit(value: number, unit: ShownUnit): number {
  return unit.zero ? Number((value * unit.factor + unit.zero).toFixed(9)) : value * unit.factor
}

/** Return a number as it is shown in a unit as one of the wire. */
export function fromUnit(shown: number, unit: ShownUnit): number {
  return Number(((shown - unit.zero) / unit.factor).toPrecision(6))
}
