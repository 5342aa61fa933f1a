/** The five headline results, as the tape shows them. */
import type { Schemas } from '@/api/client'
import { boundToDigits, toDigits, withUncertainty } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/shared/units'
import { SECTION_NAMES } from '@/shared/words'

type Results = Schemas['ResultsOut']
type Result = Schemas['ResultOut']

interface HeadlineDefinition {
  key: keyof Results
  /** Of its working. */
  name: string
  title: string
  unit: string
}

const HEADLINES: readonly HeadlineDefinition[] = [
  { key: 'inlet_hole_area_mm2', name: 'inlet_hole_area', title: 'Inlet hole area', unit: 'mm2' },
  { key: 'plate_flow_area_mm2', name: 'plate_flow_area', title: 'Tapping plate flow area', unit: 'mm2' },
  { key: 'media_effective_area_cm2', name: 'media_effective_area', title: 'Effective media area', unit: 'cm2' },
  { key: 'bypass_opening_kpa', name: 'bypass_opening', title: 'Bypass opening pressure', unit: 'kpa' },
  { key: 'efficiency_at_20_um_percent', name: 'efficiency_at_20_um', title: 'Efficiency at 20 µm(c)', unit: 'percent' },
]

const BASES: Record<string, string> = {
  measured: 'measured',
  forecast: 'forecast, before the cut',
  pressure: 'measured on a bench',
  force: 'from push-off force',
  spring: 'from spring dimensions',
  stated: 'stated by the maker',
  claim: 'published claim',
  estimate: 'screening estimate',
}

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
  rests: string
  assumed: readonly string[]
  missing: readonly string[]
}

const RELATION_SIGN: Record<string, string> = { '<=': '≤ ', '<': '< ', '>=': '≥ ', '>': '> ' }

type NumberText = Pick<Headline, 'text' | 'uncertainty' | 'band'>

function numberText(result: Result, factor: number): NumberText {
  const scaled = (number: number | null) => (number === null ? null : number * factor)
  const [value, low, high] = [scaled(result.value), scaled(result.low), scaled(result.high)]
  const bare = (text: string): NumberText => ({ text, uncertainty: null, band: null })
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
  return HEADLINES.map(({ key, name, title, unit }) => {
    const result = results[key]
    const { symbol, factor } = shownUnit(unit, family)
    const { text, uncertainty, band } = numberText(result, factor)
    const controlled = 'controlled_by' in result && result.controlled_by ? SECTION_NAMES[result.controlled_by] : null
    const basis = result.basis ? (BASES[result.basis] ?? result.basis) : ''
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
      rests: controlled ? `${basis}, ${controlled} control${controlled.endsWith('s') ? '' : 's'}` : basis,
      assumed: result.assumed,
      missing: result.missing,
    }
  })
}
