/** Oil temperatures in the unit of a family. */
import { catalogue } from '@/catalogue/catalogue'
import { inUnit, shownUnit, type UnitFamily } from '@/catalogue/units'
import { plainNumber } from './numbers'

/** Return an oil temperature in words. */
export function degrees(celsius: number, family: UnitFamily, digits = 6): string {
  const unit = shownUnit('c', family)
  return `${plainNumber(inUnit(celsius, unit), digits)} ${unit.symbol}`
}

/** Return a temperature of the bypass onset in words; with its unit where the heading has none. */
export function onsetText(celsius: number | null, family: UnitFamily, isUnitShown = true): string {
  if (celsius === null) return 'shut'
  if (celsius >= catalogue().never_closes_c) return 'never closes'
  const unit = shownUnit('c', family)
  return `${plainNumber(Math.round(inUnit(celsius, unit)), 6)}${isUnitShown ? ` ${unit.symbol}` : ''}`
}
