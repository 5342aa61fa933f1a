<script setup lang="ts">
/** Micron efficiency: claims as points or one-sided marks, the screening estimate as a wide band, each named for what it is. */
import { computed } from 'vue'
import { term } from '@/catalogue/catalogue'
import type { Schemas } from '@/api/client'
import LineChart from '@/shared/LineChart.vue'
import { linear, logarithmic } from '@/shared/charts'
import { numberWithInterval, shownNumber, significant } from '@/shared/numbers'

const props = defineProps<{ efficiency: Schemas['EfficiencyOut'] }>()

const X = { ...logarithmic(4, 60, '% captured over particle size, µm(c)', [5, 10, 20, 30, 50]), name: 'µm(c)' }
const Y = linear(0, 100, '', { ticks: [0, 25, 50, 75, 100] })
const lines = computed(() => {
  const { sizes_um_c: xs, estimate: ys, low, high } = props.efficiency
  return xs.length ? [{ key: 'estimate', name: 'estimate, %', xs, ys, low, high, ink: 'var(--amber-ink)', wash: 'var(--amber-wash)', width: 1.6 }] : []
})
const marks = computed(() => {
  const largest = props.efficiency.valid_to_um_c
  return [{ x: 20 }, ...(largest && largest < 60 ? [{ x: largest, ink: 'var(--ink-soft)', dash: '6 3', title: 'beyond it the pores are smaller than the particles' }] : [])]
})
const points = computed(() =>
  props.efficiency.claims.flatMap((claim) =>
    claim.percent === null ? [] : claim.sizes_um_c.map((size) => ({ key: `${claim.words}/${size}`, x: size, y: claim.percent, isBound: claim.relation !== '=', words: claim.words })),
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
    <LineChart :x="X" :y="Y" :lines="lines" :marks="marks" :points="points" :words="description" />
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
td.number,
th.number {
  white-space: nowrap;
  padding-left: 0.5rem;
}
</style>
