/** Whether the ways to an opening pressure agree, in words. */
import type { Schemas } from '@/api/client'
import { term } from '@/catalogue/catalogue'

/** Return what the comparison of two ways says. */
export function agreementWords(comparison: Schemas['AgreementOut']): string {
  const pair = `${term('opening_way', comparison.first)} and ${term('opening_way', comparison.second)}`
  const error = comparison.normalised_error === null ? '' : ` (Eₙ ${comparison.normalised_error.toFixed(comparison.normalised_error < 9.95 ? 1 : 0)})`
  return `${pair} ${comparison.agrees ? 'agree' : 'disagree'}${error}${comparison.reservation ? `, but ${comparison.reservation}` : ''}`
}

/** Return what all comparisons say together: every pair that disagrees by name, those that agree in one line. */
export function agreementLines(all: readonly Schemas['AgreementOut'][]): { words: string; agrees: boolean }[] {
  const disagreeing = all.filter((item) => !item.agrees)
  const agreeing = all.filter((item) => item.agrees)
  const lines = disagreeing.map((item) => ({ words: agreementWords(item), agrees: false }))
  if (agreeing.length <= 1) return [...lines, ...agreeing.map((item) => ({ words: agreementWords(item), agrees: true }))]
  const largest = Math.max(...agreeing.map((item) => item.normalised_error ?? 0)).toFixed(1)
  const which = disagreeing.length ? 'the other pairs agree' : 'all of them agree'
  const reservation = agreeing.find((item) => item.reservation)?.reservation
  return [...lines, { words: `${which} (Eₙ up to ${largest})${reservation ? `, but ${reservation}` : ''}`, agrees: true }]
}
