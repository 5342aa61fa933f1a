<script setup lang="ts">
/** Micron efficiency: what a test counted, what is claimed, what the dimensions would let one expect. */
import { computed, ref, toRef, watch } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import AlongTest from './AlongTest.vue'
import CountTableEntry from './CountTableEntry.vue'
import DetailFields from '@/entry/DetailFields.vue'
import EfficiencyChart from './EfficiencyChart.vue'
import EvidencePanel from './EvidencePanel.vue'
import SwitchButtons from '@/shared/SwitchButtons.vue'
import { details } from '@/catalogue/catalogue'
import { saveText } from '@/shared/download'
import { listedKey, useKeys } from '@/shared/useKeys'
import { useActions } from '@/shared/actions'
import { useBenchChanges, useSheet } from '@/sample/useSheet'
import { useEfficiency } from './useEfficiency'
import { usePreferences } from '@/shared/preferences'
import { useRefusal } from '@/shared/useRefusal'
import { useBenchStops } from '@/sample/useBenchStops'
import type { Upward } from './efficiencyChart'

const props = defineProps<{ sampleId: number }>()
const preferences = usePreferences()
const sampleId = toRef(props, 'sampleId')
const sheet = useSheet(sampleId)
const station = useEfficiency(sampleId)
const changes = useBenchChanges(sampleId)
const { refused, guarded } = useRefusal()

const upward = ref<Upward>('percent')
const UPWARD = [
  { label: 'E, %', value: 'percent' },
  { label: 'log β', value: 'beta' },
] as const
const isEntering = ref(false)
const test = computed(() => station.data.value?.test ?? null)
const hasCounts = computed(() => Boolean(test.value ?? station.data.value?.problem))
/** The revision of the counts that was seen when their table was begun: another window may have been there since. */
const seen = ref(0)
const revision = computed(() => sheet.data.value?.revisions.counts ?? 0)
function begin() {
  if (isEntering.value) return
  isEntering.value = true
  seen.value = revision.value
}
watch(sampleId, () => (isEntering.value = false))

const conditions = computed(() => [...details().values()].filter((detail) => detail.stage === 'efficiency'))
const texts = computed(() => sheet.data.value?.details ?? {})

const fetchKept = () => fetchCsv()
async function fetchCsv(): Promise<string> {
  seen.value = revision.value
  return (await unwrap(client.GET('/api/samples/{sample_id}/counts', { params: { path: { sample_id: props.sampleId } } }))).csv
}
const take = (body: Schemas['CountTableIn']) => changes.setCounts(body, seen.value)
async function save() {
  await guarded(async () => saveText(await fetchCsv(), `${sheet.data.value?.label ?? 'counts'} counts.csv`))
}
const remove = () => guarded(() => changes.removeCounts(revision.value))

useKeys([
  {
    keys: 'Alt+B', does: 'efficiency as per cent, or as β on a logarithmic scale', inFields: true, words: ['beta', 'log', 'scale'],
    matches: (event) => event.altKey && event.key.toLowerCase() === 'b',
    run: () => (upward.value = upward.value === 'percent' ? 'beta' : 'percent'),
  },
  listedKey('← → ↓ ↑', 'on the chart: move the crosshair'),
  listedKey('Enter, ↓ ↑', 'in the table of counts: the cell below, the cell above'),
  listedKey('Enter', 'on a condition: save it and go to the next (Shift: the one before)'),
])
useActions(() => [
  { title: 'Enter a table of counts', words: ['particle counts', 'paste', 'csv', 'test'], run: begin },
  ...(hasCounts.value ? [{ title: 'Save the counts as CSV', words: ['export', 'download'], run: () => void save() }] : []),
])
const { next, back } = useBenchStops({
  ready: () => sheet.isSuccess.value && station.isSuccess.value,
  begin: (stops) => stops.focusKey(hasCounts.value ? 'efficiency.crosshair' : 'counts'),
})
</script>

<template>
  <div ref="root" class="station-efficiency stack scrolls">
    <p v-if="station.error.value" class="said-wrong" role="alert">{{ station.error.value.message }}</p>
    <p v-else-if="!station.data.value || !sheet.data.value" class="soft">Fetching what is known …</p>
    <template v-else>
      <CountTableEntry
        v-if="!hasCounts || isEntering"
        :key="sampleId"
        :sample-id="sampleId"
        :fetch-kept="fetchKept"
        :has-counts="hasCounts"
        :take="take"
        @begun="begin"
        @taken="isEntering = false"
        @close="isEntering = false"
      />
      <div class="top">
        <section class="card" aria-label="Efficiency over particle size">
          <header class="row wrap">
            <h2>Micron efficiency</h2>
            <SwitchButtons v-model="upward" :options="UPWARD" label="Efficiency as" small />
            <span v-if="test" class="soft what small">{{ test.points.length }} sizes, {{ test.intervals_used }} of {{ test.intervals }} interval{{ test.intervals === 1 ? '' : 's' }}</span>
            <span class="tools push">
              <template v-if="hasCounts">
                <button type="button" class="tool" data-counts="enter" @click="begin">change …</button>
                <button type="button" class="tool" data-counts="save" @click="save">CSV</button>
                <button type="button" class="tool" data-counts="remove" @click="remove">remove</button>
              </template>
            </span>
          </header>
          <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
          <EfficiencyChart :station="station.data.value" :upward="upward" />
          <p class="legend soft fine">
            <template v-if="test">● counted, with its exact 95 % interval · line: the curve, dashed beyond the counted sizes · </template>◇ claimed, with an arrow where it is a bound
            <template v-if="station.data.value.estimate"> · wide band: screening estimate from dimensions</template>
          </p>
        </section>
        <section class="card" aria-label="What speaks of it">
          <EvidencePanel :station="station.data.value" />
        </section>
      </div>
      <section v-if="test" class="card"><AlongTest :test="test" /></section>
      <section class="card" aria-label="Conditions of the test">
        <h2>Conditions of the test</h2>
        <div class="conditions">
          <DetailFields :sample-id="sampleId" :details="conditions" :texts="texts" :numbers="sheet.data.value.detail_numbers" :family="preferences.family" :revisions="sheet.data.value.revisions" :set="changes.setDetail" @next="next" @previous="back" />
        </div>
      </section>
    </template>
  </div>
</template>

<style scoped>
.station-efficiency {
  height: 100%;
  padding: 0.6rem 0.8rem 1.5rem;
  gap: 0.7rem;
}
.station-efficiency > * {
  flex: none;
}
.top {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(16rem, 1fr);
  gap: 0.7rem;
  align-items: start;
}
@media (max-width: 1000px) {
  .top {
    grid-template-columns: minmax(0, 1fr);
  }
}
.station-efficiency :deep(.card) {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 10px;
  padding: 0.5rem 0.8rem 0.6rem;
}
header {
  gap: 0.3rem 0.7rem;
  margin-bottom: 0.2rem;
}
.tools {
  display: flex;
  gap: 0.3rem;
}
.legend {
  margin: 0.2rem 0 0;
}
.conditions {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0 1.2rem;
}
.conditions :deep(.detail) {
  font-size: var(--small);
}
</style>
