/** The five headline results, as the tape shows them. */
import type { Schemas } from '@/api/client'
import { bound, interval, intervalAbout, significant, withUncertainty } from '@/shared/numbers'
import { catalogue, term } from '@/catalogue/catalogue'
import { shownUnit, type UnitFamily, type WireUnit } from '@/catalogue/units'

type Results = Schemas['ResultsOut']
type Result = Schemas['ResultOut']


export interface Headline {
  key: string
  name: string
  title: string
  complete: boolean
  /** There is nothing left to measure for it: it is complete, or there is no such part. */
  settled: boolean
  /** The number, or the bound or envelope in words. */
  text: string
  /** A claim as it was made, in place of a number. */
  isWords: boolean
  /** Expanded, 95 %. */
  uncertainty: string | null
  /** Band of a screening estimate. */
  band: string | null
  unit: string
  from: string
  assumed: readonly string[]
  missing: readonly string[]
}

const RELATION_SIGN: Record<string, string> = { '<=': '≤ ', '<': '< ', '>=': '≥ ', '>': '> ' }

type NumberText = Pick<Headline, 'text' | 'uncertainty' | 'band'>

function numberText(result: Result, factor: number, symbol: string): NumberText {
  const scaled = (number: number | null) => (number === null ? null : number * factor)
  const [value, low, high] = [scaled(result.value), scaled(result.low), scaled(result.high)]
  const bare = (text: string): NumberText => ({ text, uncertainty: null, band: null })
  if (result.words) return bare(result.words)
  if (value !== null && low !== null && high !== null) {
    const shown = intervalAbout(value, low, high, symbol)
    const about = result.basis === 'estimate' ? 'about ' : '' // a screening estimate is no more
    return { ...bare(about + shown.value), band: shown.interval || null }
  }
  if (value !== null) {
    const shown = withUncertainty(value, scaled(result.expanded_uncertainty))
    return { ...bare((RELATION_SIGN[result.relation] ?? '') + shown.value), uncertainty: shown.uncertainty }
  }
  if (low !== null && high !== null) return bare(interval(low, high))
  if (low !== null) return bare(RELATION_SIGN[result.relation] + bound(low, 3, 'lower'))
  if (high !== null) return bare(RELATION_SIGN[result.relation] + bound(high, 3, 'upper'))
  return bare('')
}

/** The flow area on the narrowest stud of the engine, where a part of the engine rules it. */
function studWords(result: Result, factor: number): string {
  const area = result as Schemas['FlowAreaOut']
  if (!['outlet', 'adapter'].includes(area.controlled_by ?? '') || area.relation !== '=') return ''
  const least = area.least_stud === null || area.value === null || area.least_stud > 0.999 * area.value ? '' : ` (${significant(area.least_stud * factor, 3)} on the narrowest stud)`
  return `, set by the engine${least}`
}

/** Return the headline results in a unit family. */
export function headlines(results: Results, family: UnitFamily): Headline[] {
  return catalogue().results.filter((result) => result.is_headline).map(({ key, name, title, unit }) => {
    const result = results[key as keyof Results]
    const { symbol, factor } = shownUnit(unit as WireUnit, family)
    const { text, uncertainty, band } = numberText(result, factor, symbol)
    const controlled = 'controlled_by' in result && result.controlled_by ? term('section', result.controlled_by) : null
    const basis = result.basis ? term('basis', result.basis) : ''
    return {
      key,
      name,
      title,
      complete: text !== '',
      settled: text !== '' || result.missing.length === 0,
      text,
      isWords: !!result.words,
      uncertainty,
      band,
      unit: symbol,
      from: controlled ? `${basis}, ${controlled} control${controlled.endsWith('s') ? '' : 's'}${studWords(result, factor)}` : basis,
      assumed: result.assumed,
      missing: result.missing,
    }
  })
}
