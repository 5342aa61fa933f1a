<script setup lang="ts">
/** Micron efficiency: claims as points or one-sided marks, the screening estimate as a wide band, each named for what it is. */
import { computed } from 'vue'
import { term } from '@/catalogue/catalogue'
import type { Schemas } from '@/api/client'
import { linePath } from '@/shared/scales'
import ChartFrame from '@/shared/ChartFrame.vue'
import { numberWithInterval, shownNumber, significant } from '@/shared/numbers'

const props = defineProps<{ efficiency: Schemas['EfficiencyOut'] }>()

const [LEFT, RIGHT, TOP, BOTTOM] = [34, 346, 8, 122]
const [SMALLEST, LARGEST] = [4, 60]

function x(size: number): number {
  return LEFT + ((RIGHT - LEFT) * Math.log(size / SMALLEST)) / Math.log(LARGEST / SMALLEST)
}
function y(percent: number): number {
  return BOTTOM + ((TOP - BOTTOM) * percent) / 100
}
const ACROSS = [5, 10, 20, 30, 50].map((size) => ({ at: x(size), label: size }))
const UP = [0, 25, 50, 75, 100].map((percent) => ({ at: y(percent), label: percent }))
const sizes = computed(() => props.efficiency.sizes_um_c)
const band = computed(() => {
  const there = linePath(sizes.value.map(x), props.efficiency.low.map(y))
  const back = linePath([...sizes.value].reverse().map(x), [...props.efficiency.high].reverse().map(y))
  return there && `${there}L${back.slice(1)}Z`
})
const curve = computed(() => linePath(sizes.value.map(x), props.efficiency.estimate.map(y)))
const points = computed(() =>
  props.efficiency.claims.flatMap((claim) =>
    claim.percent === null ? [] : claim.sizes_um_c.map((size) => ({ x: x(size), y: y(claim.percent!), bound: claim.relation !== '=', words: claim.words })),
  ),
)
const rows = computed(() =>
  props.efficiency.claims.map((claim) => {
    const [low, high] = [claim.low_at_20_percent, claim.high_at_20_percent]
    return { ...claim, at20: low === null && high === null ? '' : `${shownNumber({ value: null, low, high })} %` }
  }),
)
const at20 = computed(() => {
  const e = props.efficiency
  const i = e.sizes_um_c.indexOf(20)
  return i < 0 ? null : `${numberWithInterval(e.estimate[i]!, e.low[i]!, e.high[i]!)} %`
})
const counted = computed(() => (props.efficiency.counted_at_20 ? `${shownNumber(props.efficiency.counted_at_20)} %` : ''))
const medium = computed(() => {
  const e = props.efficiency
  if (e.fibre_diameter_um === null || e.solidity_percent === null) return ''
  const taken = e.assumed.map((key) => term('screening_input', key))
  const from = taken.length ? `; ${taken.join(' and ')} typical of the family` : ', both measured'
  return `Fibres of ${significant(e.fibre_diameter_um, 3)} µm, ${significant(e.solidity_percent, 3)} % solid${from}.`
})
const permeability = computed(() => {
  const e = props.efficiency
  if (e.permeability_um2 === null) return 'Permeability: not known yet.'
  const basis = e.permeability_basis === 'family' ? `typical of the family, ×/÷ ${e.permeability_factor}` : 'from air permeability'
  return `Permeability ${significant(e.permeability_um2, 3)} µm², ${basis}.`
})
const description = computed(
  () =>
    `Efficiency over particle size from 4 to 60 µm(c). ${props.efficiency.claims.length} claims. ${at20.value ? `Screening estimate at 20 µm(c): ${at20.value}.` : ''}`,
)
</script>

<template>
  <section class="panel" aria-label="Micron efficiency">
    <h3>Micron efficiency</h3>
    <svg class="chart" viewBox="0 0 350 150" role="img" :aria-label="description">
      <path v-if="band" class="band" :d="band" />
      <ChartFrame :left="LEFT" :right="RIGHT" :top="TOP" :bottom="BOTTOM" :across="ACROSS" :up="UP" />
      <path class="mark" :d="`M${x(20)} ${TOP}V${BOTTOM}`" />
      <path v-if="curve" class="curve" :d="curve" />
      <path v-if="efficiency.valid_to_um_c && efficiency.valid_to_um_c < LARGEST" class="limit" :d="`M${x(efficiency.valid_to_um_c)} ${TOP}V${BOTTOM}`">
        <title>beyond it the pores are smaller than the particles</title>
      </path>
      <g v-for="point in points" :key="point.words">
        <circle class="claim" :cx="point.x" :cy="point.y" r="4"><title>{{ point.words }}</title></circle>
        <path v-if="point.bound" class="upward" :d="`M${point.x} ${point.y - 4}v-7m-3 3l3 -3l3 3`" />
      </g>
      <text class="middle" :x="(LEFT + RIGHT) / 2" y="148">% captured over particle size, µm(c)</text>
    </svg>
    <table>
      <thead>
        <tr>
          <th>said by</th>
          <th class="number">at 20 µm(c)</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.words + row.source" :class="{ used: row.is_used }">
          <td>{{ row.source }}: “{{ row.words }}”<span v-if="row.why_not" class="soft">, {{ row.why_not }}</span></td>
          <td class="number">{{ row.at20 || 'not compared' }}</td>
        </tr>
        <tr v-if="counted" class="used" data-efficiency="counted">
          <td>counted in a test</td>
          <td class="number">{{ counted }}</td>
        </tr>
        <tr v-if="at20" :class="{ used: efficiency.estimate_is_used }">
          <td>screening estimate from dimensions, never a rating</td>
          <td class="number">{{ at20 }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="medium" class="fine">{{ medium }}</p>
    <p class="fine">{{ permeability }}</p>
  </section>
</template>

<style scoped>
.band {
  fill: var(--amber-wash);
}
.curve {
  fill: none;
  stroke: var(--amber);
  stroke-width: 1.6;
}
.mark {
  stroke: var(--hand);
  stroke-dasharray: 2 2;
}
.limit {
  stroke: var(--ink-soft);
  stroke-dasharray: 6 3;
}
.claim {
  fill: var(--hand);
}
.upward {
  fill: none;
  stroke: var(--hand);
  stroke-width: 1.6;
}
td.number,
th.number {
  white-space: nowrap;
  padding-left: 0.5rem;
}
</style>
