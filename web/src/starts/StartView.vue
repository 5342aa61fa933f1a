<script setup lang="ts">
/** Warm-up and life: a start followed through a duty cycle, and how long each filter lasts. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, toRef } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import DutyCycleField from './DutyCycleField.vue'
import DetailFields from '@/entry/DetailFields.vue'
import LifeTable from './LifeTable.vue'
import StartChart from './StartChart.vue'
import StartTotals from './StartTotals.vue'
import { details } from '@/catalogue/catalogue'
import { listedKey, useKeys } from '@/shared/useKeys'
import { useBenchChanges, useFieldTitles, useSheet } from '@/sample/useSheet'
import { useBenchStops } from '@/sample/useBenchStops'
import { sampleColour } from '@/shared/sampleColours'
import { useMapPlace } from '@/maps/mapPlace'
import { usePreferences } from '@/shared/preferences'

const props = defineProps<{ studyId: number; sampleId: number }>()
const preferences = usePreferences()
const place = useMapPlace()
const sampleId = toRef(props, 'sampleId')
const sheet = useSheet(sampleId)
const titles = useFieldTitles(sheet.data)
const changes = useBenchChanges(sampleId)

const starts = useQuery({
  queryKey: queryKeys.warmUp(toRef(props, 'studyId'), toRef(place, 'scenario')),
  queryFn: () =>
    unwrap(client.POST('/api/studies/{study_id}/warm-up', { params: { path: { study_id: props.studyId } }, body: { scenario: place.scenario } })),
  placeholderData: keepPreviousData,
  shallow: true,
  retry: false,
})
const fields = computed(() => [...details().values()].filter((detail) => detail.stage === 'warm_up' && detail.key !== 'plan.duty_cycle'))
const texts = computed(() => sheet.data.value?.details ?? {})
const drawn = computed(() =>
  (starts.data.value?.starts ?? []).flatMap((item, i) =>
    item.trace ? [{ id: item.sample_id, label: item.label, number: i + 1, colour: sampleColour(i), trace: item.trace }] : [],
  ),
)

function choose(name: string) {
  return changes.setDetail('plan.duty_cycle', { text: name, family: 'metric' }, sheet.data.value?.revisions['details/plan.duty_cycle'] ?? 0)
}

async function read(name: string, text: string) {
  await unwrap(client.POST('/api/studies/{study_id}/duty-cycles', { params: { path: { study_id: props.studyId } }, body: { name, csv: text } }))
}

useKeys([listedKey('Enter', 'save the number and go to the next (Shift: the one before)')])

const { next, back } = useBenchStops({ ready: () => sheet.isSuccess.value })
</script>

<template>
  <div ref="root" class="start scrolls">
    <div class="columns">
      <section class="card" aria-label="Plan of the start">
        <h2>The start</h2>
        <div v-if="sheet.data.value" class="two">
          <DetailFields :sample-id="sampleId" :details="fields" :texts="texts" :numbers="sheet.data.value.detail_numbers" :family="preferences.family" :revisions="sheet.data.value.revisions" :set="changes.setDetail" @next="next" @previous="back" />
        </div>
        <DutyCycleField v-if="starts.data.value" :chosen="starts.data.value.duty_cycle" :cycles="starts.data.value.cycles" :choose="choose" :read="read" />
        <p v-if="starts.data.value?.assumed.length" class="soft fine" data-start="assumed">
          Assumed while not stated: {{ starts.data.value.assumed.map((name) => details().get(`plan.${name}`)?.title ?? name).join(', ') }}.
        </p>
        <p class="soft fine">Start a cold engine only as its maker's instructions say; a model tells nothing of one engine's wear.</p>
      </section>
      <div class="right">
        <p v-if="starts.error.value" class="said-wrong">{{ starts.error.value.message }}</p>
        <p v-else-if="!starts.data.value" class="soft">Following the start …</p>
        <template v-else>
          <StartTotals :starts="starts.data.value.starts" :in-hand="sampleId" :family="preferences.family" :titles="titles" />
          <StartChart v-if="drawn.length" :starts="drawn" :in-hand="sampleId" :family="preferences.family" />
        </template>
      </div>
    </div>
    <LifeTable v-if="starts.data.value" :starts="starts.data.value.starts" :warm="starts.data.value.warm_c" :speeds="starts.data.value.speeds" :in-hand="sampleId" :family="preferences.family" />
  </div>
</template>

<style scoped>
.start {
  height: 100%;
  padding: 0.6rem 1rem 1.5rem;
}
.columns {
  display: grid;
  grid-template-columns: 22rem minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}
.card {
  padding: 0.5rem 0.8rem 0.6rem;
}
.card :deep(.detail) {
  grid-template-columns: minmax(0, 1fr) 11.2rem;
  font-size: var(--small);
}
.card :deep(.detail p) {
  grid-column: 1 / -1;
}
.fine {
  margin: 0.35rem 0 0;
}
</style>
