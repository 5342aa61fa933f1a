/** From the map the server sent to what is drawn and told of it. */
import type { MapField } from './MapChart.vue'
import type { ValueRow } from './CrosshairPanel.vue'
import type { OperatingMap } from './useOperatingMap'
import { gridOf, unitOf, type FilterAlone, type Grid, type MapQuantity } from './mapQuantities'
import { term } from '@/catalogue/catalogue'
import { inUnit, shownUnit, type ShownUnit, type UnitFamily } from '@/catalogue/units'

/** Places on an axis as they are shown, to six digits; null where there is none. */
const shownIn = (unit: ShownUnit) => ({
  all: (values: readonly number[]) => values.map((value) => Number(inUnit(value, unit).toPrecision(6))),
  known: (values: readonly (number | null)[]) => values.map((value) => (value === null ? null : inUnit(value, unit))),
})

/** The map of the engine as a field to draw. */
export function engineField(map: OperatingMap, quantity: MapQuantity, unchanged: OperatingMap | null, family: UnitFamily): MapField {
  const down = shownUnit('c', family)
  const { all, known } = shownIn(down)
  const line = ({ speed_rpm, temperature_c, reopens_c }: OperatingMap['onset']) => ({ across: speed_rpm, closes: known(temperature_c), reopens: known(reopens_c) })
  return {
    grid: gridOf(map, quantity) ?? map.temperature_c.map(() => map.speed_rpm.map(() => null)),
    temperatures: all(map.temperature_c),
    temperatureUnit: down,
    across: map.speed_rpm,
    acrossTitle: 'engine speed, rpm',
    unit: shownUnit(unitOf(quantity), family),
    isLog: quantity.is_logarithmic,
    coldestPumping: inUnit(map.coldest_pumping_c, down),
    onset: line(map.onset),
    regulator: line(map.regulator),
    unchanged: unchanged ? line(unchanged.onset) : null,
  }
}

/** Unit of a place across the map: of a speed, or of a flow through the filter alone. */
export function acrossUnitOf(isAlone: boolean, family: UnitFamily): ShownUnit {
  return isAlone ? shownUnit('l_min', family) : { symbol: 'rpm', factor: 1, zero: 0 }
}

/** The filter alone as a field to draw. */
export function aloneField(map: FilterAlone, quantity: MapQuantity, unchanged: FilterAlone | null, family: UnitFamily): MapField {
  const [flow, down] = [acrossUnitOf(true, family), shownUnit('c', family)]
  const { all, known } = shownIn(down)
  const flows = shownIn(flow).all
  const onset = (from: FilterAlone) => ({
    across: flows(from.onset.filter_flow_l_min),
    closes: known(from.onset.temperature_c),
    reopens: known(from.onset.reopens_c),
  })
  return {
    grid: gridOf(map, quantity)!,
    temperatures: all(map.temperature_c),
    temperatureUnit: down,
    across: flows(map.filter_flow_l_min),
    acrossTitle: `filter flow, ${flow.symbol}`,
    unit: shownUnit(unitOf(quantity), family),
    isLog: quantity.is_logarithmic,
    coldestPumping: inUnit(map.coldest_pumping_c, down),
    onset: onset(map),
    regulator: null,
    unchanged: unchanged ? onset(unchanged) : null,
  }
}

/** Values at a node of the engine's map, beside those of the unchanged filter. */
export function engineRows(map: OperatingMap, unchanged: OperatingMap | null, row: number, column: number): ValueRow[] {
  const named: [string, Exclude<keyof OperatingMap & `${string}`, never>, string][] = [
    ['Element Δp', 'element_kpa', 'kpa'],
    ['Filter Δp', 'filter_kpa', 'kpa'],
    ['Pump outlet', 'pump_kpa', 'kpa'],
    ['Main gallery', 'gallery_kpa', 'kpa'],
    [`Gauge ${term('gauge_tap', map.gauge)}`, 'gauge_kpa', 'kpa'],
    ['Filter flow', 'filter_flow_l_min', 'l_min'],
    ['Relief flow', 'relief_flow_percent', 'percent'],
    ['Bypass lift', 'lift_mm', 'mm'],
    [`Captured at ${map.efficiency.size_um} µm(c)`, 'system_efficiency_percent', 'percent'],
  ]
  const at = (from: OperatingMap | null, key: keyof OperatingMap) => (from?.[key] as Grid | null | undefined)?.[row]?.[column] ?? null
  return named
    .filter(([, key]) => (key !== 'lift_mm' || map.bypass_location !== 'none') && map[key] !== null)
    .map(([title, key, wire]) => ({
      key, title, wire, value: at(map, key), unchanged: at(unchanged, key),
      ...(key === 'system_efficiency_percent' ? boundOf(map.efficiency) : {}),
    }))
}

/** Kind of bound of a share that rests on a bound or an envelope of the media's efficiency: a least, a greatest, or the least of a range. */
export function boundOf({ value_percent, low_percent, high_percent }: OperatingMap['efficiency']): Pick<ValueRow, 'bound' | 'upTo' | 'around'> {
  if (value_percent !== null)
    return value_percent > 0 && low_percent !== null && high_percent !== null ? { around: [low_percent / value_percent, high_percent / value_percent] } : {}
  if (low_percent === null) return { bound: '≤' }
  return high_percent === null ? { bound: '≥' } : { upTo: high_percent / low_percent }
}

/** Values at a node of the filter alone. */
export function aloneRows(map: FilterAlone, unchanged: FilterAlone | null, row: number, column: number): ValueRow[] {
  const named: [string, 'element_kpa' | 'filter_kpa' | 'lift_mm', string][] = [
    ['Element Δp', 'element_kpa', 'kpa'],
    ['Filter Δp', 'filter_kpa', 'kpa'],
    ['Bypass lift', 'lift_mm', 'mm'],
  ]
  const at = (from: FilterAlone | null, key: 'element_kpa' | 'filter_kpa' | 'lift_mm') => from?.[key][row]?.[column] ?? null
  return named.map(([title, key, wire]) => ({ key, title, wire, value: at(map, key), unchanged: at(unchanged, key) }))
}

/** The field as rows of a file, units in the heading. */
export function fieldRows(field: MapField, title: string): (string | number | null)[][] {
  const down = `oil temperature, ${field.temperatureUnit.symbol}`
  const heading = [`${title}, ${field.unit.symbol} (down ${down}; across ${field.acrossTitle})`, ...field.across]
  return [
    heading,
    ...field.temperatures.map((temperature, i) => [
      temperature,
      ...field.grid[i]!.map((value) => (value === null ? null : Number((value * field.unit.factor).toPrecision(5)))),
    ]),
  ]
}
