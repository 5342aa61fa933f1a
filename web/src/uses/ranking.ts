/** A judged use in words. */
import type { Schemas } from '@/api/client'
import { inUnit, type UnitFamily } from '@/catalogue/units'
import { interval, numberWithInterval, numberWithUncertainty, plainNumber, significant } from '@/shared/numbers'
import type { Judged } from './useJudged'

type Criterion = Schemas['JudgedCriterionOut']
type Disagreement = Schemas['DisagreementOut']
type Known = Schemas['KnownValueOut']
export type Verdict = Schemas['FilterVerdictOut']['proposed']

export const VERDICTS: Readonly<Record<Verdict, { short: string; long: string }>> = {
  meets: { short: 'meets', long: 'meets the stated requirements' },
  open: { short: 'not judged', long: 'not judged in full' },
  fails: { short: 'fails', long: 'fails a stated requirement' },
  none: { short: 'none stated', long: 'no requirement stated' },
}

export const METHODS: Readonly<Record<Disagreement['one_by'][number], string>> = {
  pair_wins: 'pair wins',
  rank_sum: 'rank sum',
  weighted_score: 'weighted score',
}

function listed(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`
}

/** A place, or the places it may be. */
export function placeWords({ place, first, last }: Schemas['PlaceOut']): string {
  return place === null ? `${first} to ${last}` : String(place)
}

/** The filters that a method puts first. */
export function firsts(judged: Judged): { method: string; labels: string[] }[] {
  const asOne = (label: string) => (judged.same_parts.find((labels) => labels.includes(label)) ?? [label]).join(' = ')
  const best = (figure: (one: Judged['filters'][number]) => number | null) => {
    const known = judged.filters.map((filter) => ({ label: filter.label, value: figure(filter) })).filter((item) => item.value !== null)
    const top = Math.max(...known.map((item) => item.value!))
    return [...new Set(known.filter((item) => item.value! > top - 1e-9).map((item) => asOne(item.label)))]
  }
  return [
    { method: 'pair wins', labels: best((item) => item.pairs_score) },
    { method: 'rank sum', labels: best((item) => -item.rank_sum) },
    { method: 'weighted score', labels: best((item) => item.score) },
  ]
}

/** Whom the methods put first, in one sentence. */
export function firstSentence(judged: Judged): string {
  const leaders = firsts(judged)
  const together = new Map<string, string[]>()
  for (const { method, labels } of leaders) {
    const who = listed(labels)
    together.set(who, [...(together.get(who) ?? []), method])
  }
  if (together.size === 1) return `All three methods put ${[...together.keys()][0]} first.`
  return `The methods disagree on first place: ${[...together].map(([who, methods]) => `${listed(methods)} ${methods.length > 1 ? 'put' : 'puts'} ${who} there`).join(', ')}.`
}

/** The criteria that pull one way, the strongest first. */
export function pullsFor(pair: Disagreement, first: boolean): string[] {
  const own = pair.pulls.filter((pull) => (first ? pull.points > 0 : pull.points < 0))
  const sorted = first ? own : [...own].reverse()
  return sorted.slice(0, 4).map((pull) => `${pull.name} (${significant(Math.abs(pull.points), 2)}${pull.is_told_apart ? '' : ', not told apart'})`)
}

export function disagreementSentence(pair: Disagreement): string {
  const by = (methods: Disagreement['one_by']) => listed(methods.map((method) => METHODS[method]))
  const text = `${by(pair.one_by)} put${pair.one_by.length > 1 ? '' : 's'} ${pair.one} ahead of ${pair.other}, ${by(pair.other_by)} the other way round.`
  return text[0]!.toUpperCase() + text.slice(1)
}

/** The change that would swap two neighbours. */
export function swapSentence(swap: Schemas['SwapOut'], criteria: readonly Criterion[]): string {
  const named = (measure: string | null) => criteria.find((item) => item.measure === measure)?.name ?? measure ?? ''
  const ways = []
  if (swap.measure !== null && swap.level_weight !== null && swap.weight !== null)
    ways.push(`the weight of ${named(swap.measure)} were ${weightWords(swap.level_weight)} instead of ${weightWords(swap.weight)}`)
  if (swap.value_measure !== null && swap.change_in_u !== null)
    ways.push(`${named(swap.value_measure)} of ${swap.value_sample} were off by ${significant(swap.change_in_u, 2)} of its own U`)
  if (!ways.length) return `No single weight and no single value would put ${swap.below} ahead of ${swap.above}.`
  return `${swap.above} and ${swap.below} would be level if ${ways.join(', or if ')}.`
}

export function weightWords(weight: number): string {
  return plainNumber(weight, 3)
}

/** A chance in words: never 0 or 100 % where draws are all there is, in tenths where they are few. */
export function chanceWords(chance: number, few = false): string {
  if (few) {
    const tenths = Math.round(10 * chance)
    return tenths === 0 ? 'under 1 in 10' : tenths === 10 ? 'over 9 in 10' : `about ${tenths} in 10`
  }
  if (chance > 0.9995) return 'over 99.9 %'
  if (chance < 0.0005) return 'under 0.1 %'
  return `${(100 * chance).toFixed(chance < 0.0995 || chance > 0.9005 ? 1 : 0)} %`
}

/** A value with its U in a family, or a bound, or why it is not known. */
export function knownWords(known: Known, criterion: Pick<Criterion, 'metric' | 'inch'>, family: UnitFamily): string {
  const unit = criterion[family]
  if (known.words) return known.words
  if (known.value !== null && known.low !== null && known.high !== null) {
    return numberWithInterval(inUnit(known.value, unit), inUnit(known.low, unit), inUnit(known.high, unit), unit.symbol)
  }
  if (known.value !== null) {
    return numberWithUncertainty(inUnit(known.value, unit), known.expanded_uncertainty === null ? null : known.expanded_uncertainty * unit.factor)
  }
  if (known.low === null && known.high === null) return 'not known'
  const scaled = (end: number | null) => (end === null ? null : inUnit(end, unit))
  return interval(scaled(known.low), scaled(known.high))
}
