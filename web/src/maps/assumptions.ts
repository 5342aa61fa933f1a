/** Assumptions of the model in words. */
import type { Schemas } from '@/api/client'
import { term, terms } from '@/catalogue/catalogue'
import { inUnit, shownUnit, type UnitFamily } from '@/catalogue/units'
import { significant } from '@/shared/numbers'

type Assumption = Schemas['AssumptionOut']

/** Between what it was moved, in the unit it is said in. */
export function assumptionBand(assumption: Assumption): string {
  if (assumption.is_factor) return `×/÷ ${significant(assumption.high, 3)}`
  const digits = assumption.unit && assumption.unit !== '×' ? 3 : 2
  const band = `${significant(assumption.low, digits)} to ${significant(assumption.high, digits)}`
  return assumption.unit === '×' ? `× ${band}` : `${band} ${assumption.unit}`.trim()
}

/** Effect of moving it on the bypass onset. */
export function onsetWords(assumption: Assumption, family: UnitFamily): string {
  const [low, high] = [assumption.onset_low_c, assumption.onset_high_c]
  if (low === null && high === null) return 'bypass stays shut'
  const unit = shownUnit('c', family)
  const number = (celsius: number) => significant(inUnit(celsius, unit), 2)
  if (low === null) return `bypass from shut to ${number(high!)} ${unit.symbol}`
  return Math.abs(high! - low) < 0.05 ? 'bypass onset unmoved' : `bypass onset ${number(low)} to ${number(high!)} ${unit.symbol}`
}

/** Group the inputs by where they come from, best evidence first. */
export function inputsByProvenance(inputs: readonly Schemas['InputSourceOut'][]): { provenance: string; keys: string[] }[] {
  return Object.keys(terms('provenance'))
    .map((provenance) => ({ provenance, keys: inputs.filter((input) => input.provenance === provenance).map((item) => item.key) }))
    .filter(({ keys }) => keys.length)
}

/** The two assumptions that move the map most, as they were computed; fewer where no others move it. */
export function strongestAssumptions(sensitivity: Schemas['SensitivityOut']): Assumption[] {
  return sensitivity.assumptions.filter((assumption) => assumption.mean_change_percent >= 0.05 || assumption.onset_low_c !== assumption.onset_high_c).slice(0, 2)
}

/** Say which two assumptions move the map most. */
export function sensitivitySentence(sensitivity: Schemas['SensitivityOut'], title: string): string {
  const strongest = strongestAssumptions(sensitivity)
  if (!strongest.length) return 'No assumption moves it.'
  const told = strongest.map((item) => `${term('assumption', item.name)} (${assumptionBand(item)}: ${significant(item.mean_change_percent, 2)} %)`)
  return `${title} is most sensitive to the ${told.join(', then to the ')}.`
}
