<script setup lang="ts">
/** Inputs of the map, and which assumptions move it most: found by moving each and solving again. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { assumptionBand, onsetWords, sensitivitySentence, inputsByProvenance } from './assumptions'
import { inputName } from '@/catalogue/inputs'
import { toDigits } from '@/shared/numbers'
import { term } from '@/catalogue/catalogue'

const props = defineProps<{
  sensitivity: Schemas['SensitivityOut'] | undefined
  title: string
  where: string
  titles: ReadonlyMap<string, string>
  failed: string
}>()
const counts = computed(() => inputsByProvenance(props.sensitivity?.inputs ?? []))
const name = (key: string) => (key.startsWith('model.') ? term('assumption', key) : inputName(key, props.titles))
</script>

<template>
  <section class="panel" aria-label="Inputs and sensitivity">
    <h2>Inputs and sensitivity</h2>
    <p v-if="failed" class="said-wrong">{{ failed }}</p>
    <p v-else-if="!sensitivity" class="soft fine">Moving each assumption and solving again …</p>
    <template v-else>
      <p class="fine" data-sensitivity="sentence">{{ sensitivitySentence(sensitivity, title) }}</p>
      <table>
        <thead>
          <tr>
            <th>assumption and its band</th>
            <th class="number">map, %</th>
            <th>at {{ where }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, i) in sensitivity.assumptions" :key="one.name" :class="{ used: i < 2 }" :data-assumption="one.name">
            <td>{{ term('assumption', one.name) }} <span class="soft">{{ assumptionBand(one) }}</span></td>
            <td class="number">{{ toDigits(one.mean_change_percent, 2) }}</td>
            <td>{{ onsetWords(one) }}</td>
          </tr>
        </tbody>
      </table>
      <p class="soft fine">Mean change over the map when one assumption alone goes to either end of its 95 % band.</p>
      <details v-for="one in counts" :key="one.provenance" :data-source="one.provenance">
        <summary>{{ one.keys.length }} {{ term('provenance', one.provenance) }}</summary>
        <p class="fine">{{ one.keys.map(name).join(' · ') }}</p>
      </details>
    </template>
  </section>
</template>

<style scoped>
summary {
  cursor: pointer;
  font-size: 0.88rem;
}
td:last-child {
  white-space: normal;
  font-size: 0.8rem;
}
</style>
