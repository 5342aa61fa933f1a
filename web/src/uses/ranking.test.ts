import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { chanceWords, disagreementSentence, firstSentence, knownWords, placeWords, pullsFor, swapSentence } from './ranking'
import type { Judged } from './useJudged'

const place = (first: number, last: number) => ({ place: first === last ? first : null, first, last })

function ranked(label: string, pairs: number, sum: number, score: number | null): Judged['filters'][number] {
  return {
    label,
    pairs_score: pairs,
    pairs_place: 1,
    rank_sum: sum,
    rank_sum_low: sum,
    rank_sum_high: sum,
    rank_sum_place: place(1, 1),
    score,
    score_expanded_uncertainty: 0,
    score_low: 0,
    score_high: 100,
    score_from: null,
    score_to: null,
    score_place: place(1, 2),
    ties: [],
    chances: [],
  }
}
const judgedOf = (filters: Judged['filters'], same_parts: string[][] = []) => ({ filters, same_parts }) as unknown as Judged

const PAIR: Schemas['DisagreementOut'] = {
  one: 'A',
  other: 'B',
  one_by: ['weighted_score'],
  other_by: ['pair_wins', 'rank_sum'],
  pulls: [
    { measure: 'price', name: 'price', points: 21.4, is_told_apart: true },
    { measure: 'life_h', name: 'life', points: -3.1, is_told_apart: false },
    { measure: 'onset_c', name: 'onset', points: -8, is_told_apart: true },
  ],
}

describe('what the ranking methods say', () => {
  it('says whom all put first, or who puts whom there', () => {
    expect(firstSentence(judgedOf([ranked('A', 2, 3, 80), ranked('B', -2, 6, 40)]))).toBe('All three methods put A first.')
    expect(firstSentence(judgedOf([ranked('A', 2, 3, 40), ranked('B', -2, 3, 80)]))).toBe(
      'The methods disagree on first place: pair wins puts A there, rank sum puts A and B there, weighted score puts B there.',
    )
  })
  it('never puts first what has no score', () => {
    expect(firstSentence(judgedOf([ranked('A', 2, 3, null), ranked('B', -2, 6, 0)]))).toContain('weighted score puts B there')
  })
  it('names the criteria that pull either way, the strongest first', () => {
    expect(disagreementSentence(PAIR)).toBe('Weighted score puts A ahead of B, pair wins and rank sum the other way round.')
    expect(pullsFor(PAIR, true)).toEqual(['price (21)'])
    expect(pullsFor(PAIR, false)).toEqual(['onset (8.0)', 'life (3.1, not told apart)'])
  })
  it('gives one place only where there is one', () => {
    expect(placeWords(place(2, 2))).toBe('2')
    expect(placeWords(place(1, 4))).toBe('1 to 4')
  })
  it('says what would swap two, or that nothing would', () => {
    const swap = { above: 'A', below: 'B', measure: 'price', weight: 2, level_weight: 3.444, value_measure: null, value_sample: null, change_in_u: null }
    const criteria = [{ measure: 'price', name: 'price' }] as Schemas['JudgedCriterionOut'][]
    expect(swapSentence(swap, criteria)).toBe('A and B would be level if the weight of price were 3.44 instead of 2.')
    expect(swapSentence({ ...swap, measure: null, level_weight: null, weight: null }, criteria)).toBe(
      'No single weight and no single value would put B ahead of A.',
    )
  })
  it('calls no chance certain that was found from draws', () => {
    expect([1, 0.952, 0.44, 0.012, 0].map((chance) => chanceWords(chance))).toEqual(['over 99.9 %', '95.2 %', '44 %', '1.2 %', 'under 0.1 %'])
  })
  it('tells a chance in tenths where few draws stand behind it', () => {
    expect([1, 0.87, 0.02].map((chance) => chanceWords(chance, true))).toEqual(['over 9 in 10', 'about 9 in 10', 'under 1 in 10'])
  })
  it('prints a claim as it was made, and an interval that is not symmetric as one', () => {
    const units = { metric: { symbol: '%', factor: 1, zero: 0 }, inch: { symbol: '%', factor: 1, zero: 0 } }
    const known = { label: 'A', value: null, expanded_uncertainty: null, low: 89.4, high: null, basis: 'claim', reason: '', is_spread_assumed: false, words: '≥ 97 % at 25 µm(c) claimed', evidence: 'by claim' }
    expect(knownWords(known, units, 'metric')).toBe('≥ 97 % at 25 µm(c) claimed')
    expect(knownWords({ ...known, words: '', value: 96.7, low: 88.8, high: 99.1, expanded_uncertainty: 4.2 }, units, 'metric')).toBe('96.7 (88.8 to 99.1)')
  })
  it('shows a value with its U in the family, a bound as a bound, and nothing as not known', () => {
    const units = { metric: { symbol: 'kPa', factor: 1, zero: 0 }, inch: { symbol: 'psi', factor: 0.1450377, zero: 0 } }
    const known = { label: 'A', value: 40, expanded_uncertainty: 4, low: null, high: null, basis: 'model', reason: '', is_spread_assumed: false, words: '', evidence: '' }
    expect(knownWords(known, units, 'metric')).toBe('40.0 ± 4.0')
    expect(knownWords(known, units, 'inch')).toBe('5.80 ± 0.58')
    expect(knownWords({ ...known, value: null, low: 225 }, units, 'metric')).toBe('at least 225')
    expect(knownWords({ ...known, value: null }, units, 'metric')).toBe('not known')
  })
})
