<script setup lang="ts">
/** Beside the chart: the result, sizes at filtration ratios, the claims and what the counts say of them, what speaks against the test. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { term } from '@/catalogue/catalogue'
import { significant, shownNumber } from '@/shared/numbers'

const props = defineProps<{ station: Schemas['EfficiencyStationOut'] }>()
const test = computed(() => props.station.test)

const assumed = computed(() => props.station.result.assumed.map((key) => (key.startsWith('counts.') || key.startsWith('claims') ? term('input', key) : key.startsWith('media.') ? (term('screening_input', key) ?? key) : key)))
/** A claim as it was made; a screening estimate is no more than "about". */
const headline = computed(() => {
  const { result } = props.station
  if (result.words) return result.words
  return `${result.basis === 'estimate' ? 'about ' : ''}${shownNumber(result)}${result.basis ? ' %' : ''}`
})
</script>

<template>
  <div class="panel">
    <p class="headline" data-efficiency="result">
      E at 20 µm(c): <b>{{ headline }}</b>
      <span class="soft basis">{{ station.result.basis ? term('basis', station.result.basis) : 'nothing is known yet' }}</span>
    </p>
    <p v-if="assumed.length" class="soft fine">Assumed: {{ assumed.join(', ') }}.</p>
    <p v-if="station.problem" class="said-wrong" role="alert">The counts {{ station.problem }}.</p>
    <table v-if="test && test.curves.length" aria-label="Sizes at filtration ratios">
      <thead>
        <tr>
          <th>β</th>
          <th class="number">size, µm(c)</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in test.sizes_at_beta" :key="item.beta">
          <td>{{ item.beta }}</td>
          <td class="number" :class="{ soft: item.extrapolated }" :title="item.extrapolated ? 'outside the counted sizes: an extrapolation' : undefined">{{ shownNumber(item.size_um) }}{{ item.extrapolated ? ' *' : '' }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="test?.sizes_at_beta.some((item) => item.extrapolated) && test.curves.length" class="soft fine">* outside the counted sizes: an extrapolation</p>
    <p v-if="test?.budget.length" class="fine">
      Uncertainty at 20 µm(c): {{ test.budget.map((item) => `${item.title} ${significant(item.share_percent, 2)} %`).join(', ') }} of the variance.
    </p>
    <table v-if="station.claims.length" aria-label="Claims beside the counts">
      <thead>
        <tr>
          <th>claimed</th>
          <th v-if="test">the counts</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(claim, i) in station.claims" :key="i" :data-compared="claim.verdict">
          <td>
            {{ claim.source }}: “{{ claim.words }}”
            <span v-if="claim.fibre_words" class="soft fine block">{{ claim.fibre_words }}</span>
            <span v-if="!test && claim.why" class="soft fine block" data-why>Not on the chart: {{ claim.why }}.</span>
          </td>
          <td v-if="test">
            <b v-if="claim.verdict" :class="{ 'said-wrong': claim.verdict === 'claim_higher' }">{{ term('claim_comparison', claim.verdict) }}</b>
            <span v-if="claim.why" class="fine block">{{ claim.why }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <ul v-if="test?.checks.length" class="checks bullets small" aria-label="What speaks against the test">
      <li v-for="check in test.checks" :key="check.message" :class="{ 'said-wrong': check.is_grave }" :data-check="check.code">{{ check.message }}</li>
    </ul>
    <p v-if="test" class="soft fine">The efficiency is that at the test's flow and viscosity. Counts of different kinds of test do not compare.</p>
  </div>
</template>

<style scoped>
.headline {
  margin: 0 0 0.2rem;
}
.headline b {
  font-family: var(--head);
}
.basis {
  margin-left: 0.5rem;
}
.block {
  display: block;
}
table {
  margin-bottom: 0.5rem;
}
.checks {
  margin: 0.2rem 0;
}
.checks li::first-letter {
  text-transform: uppercase;
}
</style>
