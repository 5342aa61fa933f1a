/** The five headline results, as the tape shows them. */
import type { Schemas } from '@/api/client'
import { boundToDigits, decimalsFor, toDigits, withUncertainty } from '@/shared/numbers'
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

function numberText(result: Result, factor: number): NumberText {
  const scaled = (number: number | null) => (number === null ? null : number * factor)
  const [value, low, high] = [scaled(result.value), scaled(result.low), scaled(result.high)]
  const bare = (text: string): NumberText => ({ text, uncertainty: null, band: null })
  if (result.basis === 'counts' && value !== null && low !== null && high !== null) {
    const decimals = decimalsFor((high - low) / 2)
    return { ...bare(value.toFixed(decimals)), band: `${low.toFixed(decimals)} to ${high.toFixed(decimals)}` }
  }
  if (value !== null && low !== null && high !== null) {
    const digits = result.basis === 'estimate' ? 2 : 4
    return { ...bare(toDigits(value, digits)), band: `${toDigits(low, 2)} to ${toDigits(high, high > 99 ? 3 : 2)}` }
  }
  if (value !== null) {
    const shown = withUncertainty(value, scaled(result.expanded_uncertainty))
    return { ...bare((RELATION_SIGN[result.relation] ?? '') + shown.value), uncertainty: shown.uncertainty }
  }
  if (low !== null && high !== null) return bare(`${toDigits(low, 3)} to ${toDigits(high, 3)}`)
  if (low !== null) return bare(RELATION_SIGN[result.relation] + boundToDigits(low, 3, 'lower'))
  if (high !== null) return bare(RELATION_SIGN[result.relation] + boundToDigits(high, 3, 'upper'))
  return bare('')
}

/** Return the headline results in a unit family. */
export function headlines(results: Results, family: UnitFamily): Headline[] {
  return catalogue().results.filter((one) => one.is_headline).map(({ key, name, title, unit }) => {
    const result = results[key as keyof Results]
    const { symbol, factor } = shownUnit(unit as WireUnit, family)
    const { text, uncertainty, band } = numberText(result, factor)
    const controlled = 'controlled_by' in result && result.controlled_by ? term('section', result.controlled_by) : null
    const basis = result.basis ? term('basis', result.basis) : ''
    return {
      key,
      name,
      title,
      complete: text !== '',
      settled: text !== '' || result.missing.length === 0,
      text,
      uncertainty,
      band,
      unit: symbol,
      from: controlled ? `${basis}, ${controlled} control${controlled.endsWith('s') ? '' : 's'}` : basis,
      assumed: result.assumed,
      missing: result.missing,
    }
  })
}
