<script setup lang="ts">
/** What the map rests on, and which assumptions move it most: found by moving each and solving again. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { assumptionBand, assumptionName, onsetWords, sensitivitySentence, sourceCounts } from './assumptions'
import { inputName } from '@/shared/inputNames'
import { toDigits } from '@/shared/numbers'
import { PROVENANCE_NAMES } from '@/shared/words'

const props = defineProps<{
  resting: Schemas['RestingOut'] | undefined
  title: string
  where: string
  titles: ReadonlyMap<string, string>
  failed: string
}>()
const counts = computed(() => sourceCounts(props.resting?.inputs ?? []))
const name = (key: string) => (key.startsWith('model.') ? assumptionName(key) : inputName(key, props.titles))
</script>

<template>
  <section class="panel" aria-label="What the map rests on">
    <h2>What this rests on</h2>
    <p v-if="failed" class="said-wrong">{{ failed }}</p>
    <p v-else-if="!resting" class="soft fine">Moving each assumption and solving again …</p>
    <template v-else>
      <p class="fine" data-rests="sentence">{{ sensitivitySentence(resting, title) }}</p>
      <table>
        <thead>
          <tr>
            <th>assumption, and its band</th>
            <th class="number">map, %</th>
            <th>at {{ where }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, i) in resting.assumptions" :key="one.name" :class="{ used: i < 2 }" :data-assumption="one.name">
            <td>{{ assumptionName(one.name) }} <span class="soft">{{ assumptionBand(one) }}</span></td>
            <td class="number">{{ toDigits(one.mean_change_percent, 2) }}</td>
            <td>{{ onsetWords(one) }}</td>
          </tr>
        </tbody>
      </table>
      <p class="soft fine">Mean change over the map when one alone goes to either end of its 95 % band.</p>
      <details v-for="one in counts" :key="one.provenance" :data-source="one.provenance">
        <summary>{{ one.keys.length }} {{ PROVENANCE_NAMES[one.provenance] }}</summary>
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
