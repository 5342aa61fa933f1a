<script setup lang="ts">
/** Inputs of the map, and which assumptions move it most: found by moving each and solving again. */
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { assumptionBand, inputsByProvenance, onsetWords, sensitivitySentence, strongestAssumptions } from './assumptions'
import { inputName } from '@/catalogue/inputs'
import { significant } from '@/shared/numbers'
import { usePreferences } from '@/shared/preferences'
import { term } from '@/catalogue/catalogue'

type Assumption = Schemas['AssumptionOut']

const props = defineProps<{
  sensitivity: Schemas['SensitivityOut'] | undefined
  title: string
  where: string
  titles: ReadonlyMap<string, string>
  failed: string
}>()
const preferences = usePreferences()
/** The two strongest are marked. */
const strongest = computed(() => new Set(strongestAssumptions(props.sensitivity!).map((item) => item.name)))
const rowClass = (assumption: Assumption) => ({ used: strongest.value.has(assumption.name) })
const byTitle = (assumption: Assumption) => term('assumption', assumption.name)
const counts = computed(() => inputsByProvenance(props.sensitivity?.inputs ?? []))
/** An effect too small to resolve is named as such, not with meaningless digits. */
const shownPercent = (percent: number) => (percent !== 0 && Math.abs(percent) < 0.1 ? '< 0.1' : significant(percent, 2))
const name = (key: string) => (key.startsWith('model.') ? term('assumption', key) : inputName(key, props.titles))
</script>

<template>
  <section class="panel" aria-label="Inputs and sensitivity">
    <h2>Inputs and sensitivity</h2>
    <p v-if="failed" class="said-wrong">{{ failed }}</p>
    <p v-else-if="!sensitivity" class="soft fine">Moving each assumption and solving again …</p>
    <template v-else>
      <p class="fine" data-sensitivity="sentence">{{ sensitivitySentence(sensitivity, title) }}</p>
      <DataTable :value="[...sensitivity.assumptions]" data-key="name" size="small" sort-mode="single" :row-class="rowClass">
        <Column field="name" header="assumption and its band" sortable :sort-field="byTitle">
          <template #body="{ data }">{{ term('assumption', data.name) }} <span class="soft">{{ assumptionBand(data) }}</span></template>
        </Column>
        <Column field="mean_change_percent" header="map, %" sortable class="number">
          <template #body="{ data }">{{ shownPercent(data.mean_change_percent) }}</template>
        </Column>
        <Column field="onset_low_c" :header="`at ${where}`" sortable>
          <template #body="{ data }"><span class="onset">{{ onsetWords(data, preferences.family) }}</span></template>
        </Column>
      </DataTable>
      <p class="soft fine">Mean change over the map when one assumption alone goes to either end of its 95 % band.</p>
      <details v-for="count in counts" :key="count.provenance" :data-source="count.provenance">
        <summary class="small">{{ count.keys.length }} {{ term('provenance', count.provenance) }}</summary>
        <p class="fine">{{ count.keys.map(name).join(' · ') }}</p>
      </details>
    </template>
  </section>
</template>

<style scoped>
td:last-child {
  white-space: normal;
  font-size: var(--fine);
}
</style>
