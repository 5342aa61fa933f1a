<script setup lang="ts">
/** Uncertainty budget of a result, the largest part first, and how to reduce each part. */
import type { Schemas } from '@/api/client'
import { term } from '@/catalogue/catalogue'
import type { UnitFamily } from '@/catalogue/units'
import { plainNumber, toPercent } from '@/shared/numbers'

defineProps<{ budget: Schemas['BudgetOut'] | null; without: string; family: UnitFamily; fieldOf: (key: string) => string | null }>()
defineEmits<{ go: [key: string] }>()

</script>

<template>
  <section class="budget panel" aria-label="Uncertainty budget">
    <h2>Uncertainty budget</h2>
    <p v-if="!budget" class="soft small">{{ without }}</p>
    <template v-else>
      <table>
        <thead>
          <tr>
            <th>from</th>
            <th><span class="unseen">as a bar</span></th>
            <th class="number">u</th>
            <th class="number">of u²</th>
            <th>what would make it smaller</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in budget.contributions" :key="item.key + item.source" :data-contribution="`${item.key} ${item.source}`">
            <td>
              <button v-if="fieldOf(item.key)" type="button" class="number-link" @click="$emit('go', item.key)">{{ item.title }}</button>
              <template v-else>{{ item.title }}</template>
            </td>
            <td class="soft source nowrap">{{ term('uncertainty_source', item.source) }}</td>
            <td class="number">{{ family === 'metric' ? item.metric : item.inch }}</td>
            <td class="number">
              <span class="bar" :style="{ width: `${0.04 * item.share_percent}rem` }" aria-hidden="true" />{{ toPercent(item.share_percent / 100) }}
            </td>
            <td>{{ item.smaller }}</td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <td colspan="2">together, root of the sum of squares</td>
            <td class="number">{{ family === 'metric' ? budget.metric_uncertainty : budget.inch_uncertainty }}</td>
            <td class="number">100 %</td>
            <td class="soft">standard uncertainty; expanded to 95 % it stands beside the result</td>
          </tr>
        </tfoot>
      </table>
      <p v-if="budget.covariances.length" class="soft small" data-covariances>
        Numbers of the last line that share inputs vary together:
        <template v-for="(covariance, i) in budget.covariances" :key="covariance.first + covariance.second"
          >{{ i ? ', ' : '' }}{{ covariance.first }} with {{ covariance.second }} (correlation {{ plainNumber(covariance.correlation, 2) }}, {{ covariance.share_percent > 0 ? '+' : ''
          }}{{ toPercent(covariance.share_percent / 100) }} of u²)</template
        >. Told by independent inputs, as above, nothing is counted twice.
      </p>
      <p v-else class="soft small">The inputs are independent: no covariances.</p>
    </template>
  </section>
</template>

<style scoped>
.budget {
  margin-top: 1.1rem;
  border-top: 1px solid var(--line-strong);
}
h2 {
  font-size: 1rem;
  margin: 0.5rem 0 0.2rem;
}
th,
td {
  padding: 0.12rem 0.9rem 0.12rem 0;
}
tfoot td {
  border-top: 1px solid var(--line-strong);
}
.bar {
  display: inline-block;
  height: 0.5rem;
  margin-right: 0.4rem;
  background: var(--hand);
  opacity: 0.45;
}
p {
  margin: 0.35rem 0 0;
}
</style>
