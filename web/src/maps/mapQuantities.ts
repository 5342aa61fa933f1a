/** What a map can show. */
import type { Schemas } from '@/api/client'
import type { OperatingMap } from './useOperatingMap'

export type QuantityName = Schemas['SliceIn']['quantity']
export type FilterAlone = Schemas['FilterAloneOut']

type GridKeyOf<T> = { [K in keyof T]: NonNullable<T[K]> extends (number | null)[][] ? K : never }[keyof T]
export type MapGridKey = GridKeyOf<OperatingMap>
export type AloneGridKey = GridKeyOf<FilterAlone>

export interface MapQuantity {
  name: QuantityName
  title: string
  /** Key of its grid in the map of the engine. */
  grid: MapGridKey
  /** Key in the map of the filter alone, where it has one. */
  alone: AloneGridKey | null
  unit: 'kpa' | 'percent' | 'mm' | 'l_min'
  /** Whether its values span so many decades that only a logarithmic scale shows them. */
  log: boolean
}

export const MAP_QUANTITIES: readonly MapQuantity[] = [
  { name: 'element_pressure', title: 'Element differential pressure', grid: 'element_kpa', alone: 'element_kpa', unit: 'kpa', log: true },
  { name: 'filter_pressure', title: 'Filter differential pressure', grid: 'filter_kpa', alone: 'filter_kpa', unit: 'kpa', log: true },
  { name: 'unfiltered_fraction', title: 'Unfiltered share', grid: 'unfiltered_percent', alone: 'unfiltered_percent', unit: 'percent', log: false },
  { name: 'lift', title: 'Bypass valve lift', grid: 'lift_mm', alone: 'lift_mm', unit: 'mm', log: false },
  { name: 'gallery_pressure', title: 'Gallery pressure', grid: 'gallery_kpa', alone: null, unit: 'kpa', log: false },
  { name: 'gauge_excess', title: 'Gauge minus gallery', grid: 'gauge_minus_gallery_kpa', alone: null, unit: 'kpa', log: false },
  { name: 'filter_flow', title: 'Filter flow', grid: 'filter_flow_l_min', alone: null, unit: 'l_min', log: false },
  { name: 'regulator_fraction', title: 'Regulator dump', grid: 'regulator_dump_percent', alone: null, unit: 'percent', log: false },
  { name: 'media_fraction', title: 'System efficiency', grid: 'system_efficiency_percent', alone: null, unit: 'percent', log: false },
]

export function quantityNamed(name: QuantityName): MapQuantity {
  return MAP_QUANTITIES.find((one) => one.name === name) ?? MAP_QUANTITIES[0]!
}
