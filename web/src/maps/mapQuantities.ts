/** Quantities of a map, as the catalogue has them. */
import type { Schemas } from '@/api/client'
import { catalogue } from '@/catalogue/catalogue'
import type { WireUnit } from '@/catalogue/units'
import type { OperatingMap } from './useOperatingMap'

export type MapQuantity = Schemas['MapQuantityOut']
export type MapQuantityName = MapQuantity['name']
export type FilterAlone = Schemas['FilterAloneOut']
export type Grid = (number | null)[][]

export function mapQuantities(): readonly MapQuantity[] {
  return catalogue().map_quantities
}

export function quantityNamed(name: MapQuantityName): MapQuantity {
  return mapQuantities().find((quantity) => quantity.name === name)!
}

export function unitOf(quantity: MapQuantity): WireUnit {
  return quantity.unit as WireUnit
}

/** The grid of a quantity in a map; null where the map has none. */
export function gridOf(map: OperatingMap | FilterAlone, quantity: MapQuantity): Grid | null {
  return (map as unknown as Record<string, Grid | null | undefined>)[quantity.grid] ?? null
}
