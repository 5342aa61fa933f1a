<script setup lang="ts">
/** Three ranking methods side by side, the chance of each place, where they disagree, what would swap two places. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { sampleColour } from '@/shared/sampleColours'
import { numberWithInterval, numberWithUncertainty, significant } from '@/shared/numbers'
import { chanceWords, disagreementSentence, firstSentence, placeWords, pullsFor, swapSentence, weightWords } from './ranking'
import type { Judged, Trial } from './useJudged'

const props = defineProps<{ judged: Judged; colours: ReadonlyMap<string, number>; trialError: string }>()
/** A what-if weight. */
const trial = defineModel<Trial | null>('trial', { required: true })
const anyWeights = defineModel<boolean>('anyWeights', { required: true })
const emit = defineEmits<{ keep: [trial: Trial] }>()

const ranked = computed(() => [...props.judged.filters].sort((item, other) => (other.score ?? -1) - (item.score ?? -1)))
const count = computed(() => props.judged.labels.length)
const colourOf = (label: string) => sampleColour(props.colours.get(label) ?? 0)
/** Places from dark to light; the number stands in the bar where it fits. */
const shade = (place: number) => 1 - (0.82 * place) / Math.max(1, count.value - 1)

function score(ranked: Judged['filters'][number]): string {
  if (ranked.score === null) return 'nothing known'
  if (props.judged.asked_end_points.length) return 'needs end points'
  const [from, to] = [ranked.score_from!, ranked.score_to!]
  return from > 0 && to < 100 ? numberWithUncertainty(ranked.score, ranked.score_expanded_uncertainty) : numberWithInterval(ranked.score, from, to)
}
const bounds = (low: number, high: number) => (high - low > 1e-9 ? `${significant(low, 3)} to ${significant(high, 3)}` : '')
const chancesOf = (ranked: Judged['filters'][number]) => ranked.chances.map((chance, place) => `place ${place + 1} ${chanceWords(chance, few.value)}`).join(', ')

const few = computed(() => props.judged.followed_draws !== null)
const counted = computed(() => props.judged.criteria.map((item, index) => ({ ...item, index })).filter((item) => !item.struck))
const slid = computed(() => props.judged.criteria[trial.value?.criterion ?? -1])
const mostWeight = computed(() => 2 * Math.max(1, ...props.judged.criteria.map((item) => item.weight)))
const circle = (labels: readonly string[]) => [...labels, labels[0]!].join(' over ')

/** Place in one criterion, as it is kept on paper. */
function inCriterion(place: Schemas['PlaceInOut'] | null | undefined): string {
  if (!place) return '–'
  return place.first === place.last ? `${place.first}${place.is_level ? '=' : ''}` : `${place.first} to ${place.last}`
}

function onSlide(event: Event) {
  if (trial.value) trial.value = { ...trial.value, weight: Number((event.target as HTMLInputElement).value) }
}
function choose(event: Event) {
  const index = (event.target as HTMLSelectElement).value
  trial.value = index === '' ? null : { criterion: Number(index), weight: props.judged.criteria[Number(index)]!.weight }
}
</script>

<template>
  <div class="ranking small">
    <div class="methods">
      <p class="first strong" data-part="first">{{ firstSentence(judged) }}</p>
      <table aria-label="The ranking methods side by side">
        <thead>
          <tr>
            <th scope="col">filter</th>
            <th scope="col" colspan="2" title="Pairs won less pairs lost, criterion by criterion, whatever the weights">pair wins</th>
            <th scope="col" colspan="2" title="Sum of the places in each criterion, unweighted; low is good">rank sum</th>
            <th scope="col" colspan="2" title="0 to 100 between the end points, by weight">weighted score</th>
            <th scope="col">chance of each place</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in ranked" :key="item.label" :data-filter="item.label">
            <th scope="row"><i :style="{ background: colourOf(item.label) }" />{{ item.label }}</th>
            <td class="place">{{ item.pairs_place }}</td>
            <td class="figure">{{ item.pairs_score > 0 ? '+' : item.pairs_score < 0 ? '−' : '' }}{{ Math.abs(item.pairs_score) }}</td>
            <td class="place">{{ placeWords(item.rank_sum_place) }}</td>
            <td class="figure" :title="bounds(item.rank_sum_low, item.rank_sum_high)">{{ significant(item.rank_sum, 3) }}</td>
            <td class="place">{{ placeWords(item.score_place) }}</td>
            <td class="figure" :title="item.ties.length ? `cannot be told from ${item.ties.join(', ')}` : ''">
              {{ score(item) }}<span v-if="item.ties.length" class="soft"> tied</span>
            </td>
            <td>
              <svg class="chart chances" viewBox="0 0 260 20" role="img" :aria-label="`${item.label}: ${chancesOf(item)}`">
                <template v-for="(chance, place) in item.chances" :key="place">
                  <rect
                    :x="260 * item.chances.slice(0, place).reduce((sum, part) => sum + part, 0)"
                    y="1"
                    :width="260 * chance"
                    height="18"
                    :fill="colourOf(item.label)"
                    :fill-opacity="shade(place)"
                  />
                  <text
                    v-if="chance > 0.15"
                    class="middle"
                    :class="{ light: shade(place) > 0.85 }"
                    :x="260 * (item.chances.slice(0, place).reduce((sum, part) => sum + part, 0) + chance / 2)"
                    y="14"
                  >
                    {{ place + 1 }}: {{ chanceWords(chance, few) }}
                  </text>
                </template>
              </svg>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="soft fine">
        A place is one figure only where not knowing cannot change it. “tied”: not told from another one by the uncertainty of both.
        <label><input v-model="anyWeights" type="checkbox" /> chances over all weights there can be</label>
      </p>
      <p v-if="judged.asked_end_points.length" class="fine" data-part="end-points">State best and worst of {{ judged.asked_end_points.join(', ') }}: so few filters set no scale of a score.</p>
      <p v-if="judged.left_out.length" class="fine" data-part="left-out">Left out, since nothing is known of them in what counts: {{ judged.left_out.join(', ') }}.</p>
      <p v-if="judged.without_values.length" class="fine" data-part="without-values">Left out, since no filter has it: {{ judged.without_values.join(', ') }}.</p>
      <p v-for="labels in judged.same_parts" :key="labels.join()" class="fine" data-part="same-part">Nothing tells {{ labels.join(' and ') }} apart: they take one place, and their chances add up.</p>
      <p v-if="few" class="soft fine">Only {{ judged.followed_draws }} draws of a start stand behind the chances: they are given in tenths.</p>
      <details class="pairs" data-part="places">
        <summary>place in each criterion</summary>
        <table aria-label="Place in each criterion">
          <thead>
            <tr>
              <th scope="col">criterion, weight</th>
              <th v-for="item in ranked" :key="item.label" scope="col">{{ item.label }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="item in counted" :key="item.index" :data-criterion="item.measure">
              <th scope="row">{{ item.name }}, {{ weightWords(item.weight) }}</th>
              <td v-for="filter in ranked" :key="filter.label">{{ inCriterion(item.places[filter.label]) }}</td>
            </tr>
          </tbody>
        </table>
        <p class="soft fine">=: not told apart from another one.</p>
      </details>
      <details class="pairs">
        <summary>pair by pair: in how many criteria two could be compared</summary>
        <table aria-label="Pair by pair">
          <tbody>
            <tr v-for="pair in judged.pairs" :key="pair.first_label + pair.second_label" :data-pair="`${pair.first_label}/${pair.second_label}`">
              <th scope="row">{{ pair.first_label }} and {{ pair.second_label }}</th>
              <td>{{ pair.won_by_first }} to {{ pair.won_by_second }}</td>
              <td class="soft">compared in {{ pair.compared }} of {{ counted.length }}</td>
            </tr>
          </tbody>
        </table>
      </details>
      <p v-for="labels in judged.circles" :key="labels.join()" class="fine" data-part="circle">Pair wins go in a circle: {{ circle(labels) }}.</p>
    </div>
    <div class="why">
      <section v-if="judged.disagreements.length" aria-label="Where the methods disagree">
        <h3 class="small">Where the methods disagree</h3>
        <div v-for="pair in judged.disagreements.slice(0, 2)" :key="pair.one + pair.other" class="pair" data-part="disagreement">
          <p>{{ disagreementSentence(pair) }}</p>
          <p class="soft">for {{ pair.one }}: {{ pullsFor(pair, true).join(', ') || 'nothing' }}</p>
          <p class="soft">for {{ pair.other }}: {{ pullsFor(pair, false).join(', ') || 'nothing' }}</p>
        </div>
        <p v-if="judged.disagreements.length > 2" class="soft fine">and in {{ judged.disagreements.length - 2 }} pairs farther down. In brackets: points of the weighted score.</p>
        <p v-else class="soft fine">In brackets: points of the weighted score.</p>
      </section>
      <section aria-label="What would swap two places">
        <h3 class="small">Changes that would swap two places</h3>
        <p v-for="swap in judged.swaps" :key="swap.above" class="fine" data-part="swap">{{ swapSentence(swap, judged.criteria) }}</p>
        <div v-if="counted.length" class="slider row wrap">
          <label>
            try another weight of
            <select :value="trial ? String(trial.criterion) : ''" @change="choose">
              <option value="">nothing</option>
              <option v-for="item in counted" :key="item.index" :value="String(item.index)">{{ item.name }}</option>
            </select>
          </label>
          <template v-if="trial && slid">
            <input type="range" min="0" :max="mostWeight" :step="mostWeight / 80" :value="trial.weight" :aria-label="`Weight of ${slid.name}, what if`" @input="onSlide" />
            <strong class="figure">{{ weightWords(trial.weight) }}</strong>
            <button type="button" class="tool" @click="emit('keep', trial)">keep it</button>
            <button type="button" class="tool" @click="trial = null">as it was</button>
          </template>
        </div>
        <p v-if="trial" class="thought" role="status">Shown as if that weight were {{ weightWords(trial.weight) }}: nothing is changed until it is kept.</p>
        <p v-if="trialError" class="said-wrong" role="alert">{{ trialError }}</p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.ranking {
  display: flex;
  gap: 1.6rem;
  align-items: flex-start;
}
.methods {
  flex: 0 0 42.5rem;
  max-width: 100%;
}
.why {
  flex: 1;
  min-width: 16rem;
}
@media (max-width: 1000px) {
  .ranking {
    flex-direction: column;
  }
}
.first {
  margin: 0 0 0.3rem;
}
th {
  font-weight: 400;
}
thead th {
  padding-right: 0.8rem;
}
tbody th,
td {
  padding: 0.2rem 0.4rem 0.2rem 0;
  border-top: 1px solid var(--line);
  white-space: nowrap;
}
tbody th i {
  display: inline-block;
  width: 0.7rem;
  height: 0.9rem;
  margin-right: 0.4rem;
  vertical-align: -0.1rem;
}
.place {
  font-weight: 600;
  min-width: 1.6rem;
}
.figure {
  font-variant-numeric: tabular-nums;
  padding-right: 1.1rem;
}
td.figure {
  color: var(--ink-soft);
}
.chances {
  width: 260px;
  height: 20px;
}
.chances text {
  fill: var(--ink);
}
.chances text.light {
  fill: #fff;
}
h3 {
  margin: 0 0 0.2rem;
}
.why section + section {
  margin-top: 0.7rem;
}
.why p {
  margin: 0 0 0.2rem;
  line-height: 1.35;
}
.pair {
  margin-bottom: 0.4rem;
}
.fine,
.pairs {
  font-size: var(--fine);
  margin: 0.3rem 0;
}
.slider {
  margin: 0.3rem 0;
}
.slider select {
  max-width: 14rem;
}
.thought {
  border-left: 3px solid var(--amber);
  padding-left: 0.5rem;
}
</style>
