/** Assumptions of the model in words. */
import type { Schemas } from '@/api/client'
import { toDigits } from '@/shared/numbers'

type Assumption = Schemas['AssumptionOut']

const NAMES: Record<string, string> = {
  'model.permeability': 'permeability of the media',
  'model.hole_loss': 'loss coefficient of holes and bores',
  'model.discharge': 'discharge coefficient of the bypass valve',
  'model.cold_viscosity': 'thickness of the cold oil at rest',
  'model.bearing_heating': "heating of the bearings' oil",
  'model.cooler_share': 'viscous share of the cooler',
  'model.pump': 'pump displacement',
  'model.regulator': 'regulator opening',
  'model.gallery': 'hot gallery pressure',
  'model.dead_coils': 'dead coils of the bypass spring',
  'model.shear_modulus': 'material of the bypass spring',
  'model.stated_setting': 'stated bypass setting',
}

export function assumptionName(name: string): string {
  return NAMES[name] ?? name.replace('model.', '').replaceAll('_', ' ')
}

/** Between what it was moved. */
export function assumptionBand(one: Assumption): string {
  if (one.is_factor) return `×/÷ ${toDigits(one.high, 3)}`
  if (one.name === 'model.cold_viscosity') return `× ${toDigits(one.low, 2)} to ${toDigits(one.high, 2)}`
  return one.name === 'model.shear_modulus'
    ? `${toDigits(one.low / 1e9, 3)} to ${toDigits(one.high / 1e9, 3)} GPa`
    : `${toDigits(one.low, 2)} to ${toDigits(one.high, 2)}`
}

/** What moving it does to the bypass onset. */
export function onsetWords(one: Assumption): string {
  const [low, high] = [one.onset_low_c, one.onset_high_c]
  if (low === null && high === null) return 'bypass stays shut'
  if (low === null) return `bypass from shut to ${toDigits(high!, 2)} °C`
  return Math.abs(high! - low) < 0.05 ? 'bypass onset unmoved' : `bypass onset ${toDigits(low, 2)} to ${toDigits(high!, 2)} °C`
}

/** Count the inputs by where they come from, in a fixed order. */
export function sourceCounts(inputs: readonly Schemas['InputSourceOut'][]): { provenance: string; keys: string[] }[] {
  const order = ['measured', 'derived', 'by_eye', 'published', 'assumed']
  return order
    .map((provenance) => ({ provenance, keys: inputs.filter((one) => one.provenance === provenance).map((one) => one.key) }))
    .filter(({ keys }) => keys.length)
}

/** The two assumptions that move the map most, as they were computed; fewer where no others move it. */
export function strongestAssumptions(resting: Schemas['RestingOut']): Assumption[] {
  return resting.assumptions.filter((one) => one.mean_change_percent >= 0.05 || one.onset_low_c !== one.onset_high_c).slice(0, 2)
}

/** Say which two assumptions move the map most. */
export function sensitivitySentence(resting: Schemas['RestingOut'], title: string): string {
  const strongest = strongestAssumptions(resting)
  if (!strongest.length) return 'No assumption moves it.'
  const told = strongest.map((one) => `${assumptionName(one.name)} (${assumptionBand(one)}: ${toDigits(one.mean_change_percent, 2)} %)`)
  return `${title} moves most with the ${told.join(', then with the ')}.`
}

