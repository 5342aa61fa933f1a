<script setup lang="ts">
/** Intake: what the study asks, the engine it is for, this sample, and what is claimed of it. */
import { computed, toRef } from 'vue'
import { useRoute } from 'vue-router'
import DateCodePanel from '@/entry/DateCodePanel.vue'
import OfferList from '@/entry/OfferList.vue'
import ClaimList from '@/entry/ClaimList.vue'
import KeptList from './KeptList.vue'
import CopiedMark from '@/entry/CopiedMark.vue'
import DetailFields from '@/entry/DetailFields.vue'
import { details } from '@/catalogue/catalogue'
import { listedKey, useKeys } from '@/shared/useKeys'
import { useBenchChanges, useSheet } from '@/sample/useSheet'
import { useBenchStops } from '@/sample/useBenchStops'
import { useStudy } from '@/study/useStudies'
import { usePreferences } from '@/shared/preferences'

const props = defineProps<{ sampleId: number }>()
const route = useRoute()
const preferences = usePreferences()
const sampleId = toRef(props, 'sampleId')
const sheet = useSheet(sampleId)
const study = useStudy(computed(() => Number(route.params.studyId)))
const changes = useBenchChanges(sampleId)

const GROUPS = [
  { title: 'This sample', prefix: 'sample.' },
  { title: 'The study', prefix: 'study.' },
  { title: 'The engine', prefix: 'engine.' },
] as const
const labels = computed(() => (study.data.value?.samples ?? []).map((sample) => sample.label))

/** Warnings about a detail. */
const questions = computed(() => {
  const { detail_questions: asked = {}, analysis } = sheet.data.value ?? {}
  return { ...asked, ...Object.fromEntries((analysis?.warnings ?? []).filter((item) => details().has(item.where)).map((item) => [item.where, item.message])) }
})

function of(prefix: string) {
  return [...details().values()].filter((detail) => detail.stage === 'intake' && detail.key.startsWith(prefix))
}

useKeys([
  listedKey('Enter', 'save the detail and go to the next (Shift: the one before)'),
  listedKey('↓ ↑', 'next, the one before'),
  listedKey('Esc', 'back to the saved value'),
])

const { next, back } = useBenchStops({
  ready: () => sheet.isSuccess.value,
  begin: (stops) => {
    const empty = stops.stops().find((stop) => stop.querySelector('input, textarea')?.matches(':placeholder-shown, :not([value])'))
    stops.enter(empty ?? stops.stops()[0])
  },
})
</script>

<template>
  <div ref="root" class="intake scrolls">
    <div v-if="sheet.data.value" class="cards">
      <section v-for="group in GROUPS" :key="group.prefix" class="card" :class="group.prefix.slice(0, -1)">
        <h2>{{ group.title }} <CopiedMark :things="of(group.prefix).map((detail) => `details/${detail.key}`)" :of="group.title.toLowerCase()" /></h2>
        <DetailFields :sample-id="sampleId" :details="of(group.prefix)" :texts="sheet.data.value.details" :numbers="sheet.data.value.detail_numbers" :questions="questions" :family="preferences.family"
          :options="{ 'study.reference': labels }" :revisions="sheet.data.value.revisions" :set="changes.setDetail" @next="next" @previous="back">
          <template #after="{ detail }">
            <DateCodePanel v-if="detail.key === 'sample.made'" :sample-id="sampleId" :code="sheet.data.value.details['sample.date_code'] ?? ''" :made="sheet.data.value.details['sample.made'] ?? ''"
          :revision="sheet.data.value.revisions['details/sample.made'] ?? 0" :maker="sheet.data.value.details['sample.maker'] ?? ''" :changes="changes" />
          </template>
        </DetailFields>
        <p v-if="group.prefix === 'sample.' && sheet.data.value.shelf" class="shelf sentence">{{ sheet.data.value.shelf }}</p>
        <p v-if="group.prefix === 'engine.'" class="soft note fine">
          Stud and adapter belong to the engine, not to the filter. An adapter changes the flow path.
        </p>
      </section>
      <section class="card claimed">
        <ClaimList :sample-id="sampleId" :claims="sheet.data.value.claims" :contradictions="sheet.data.value.contradictions" :changes="changes" />
      </section>
      <section class="card offered">
        <OfferList :sample-id="sampleId" :offers="sheet.data.value.offers" :changes="changes" />
      </section>
      <p class="from-table"><router-link :to="{ name: 'readings-table', params: $route.params }">Readings from a table or spreadsheet …</router-link></p>
      <KeptList :sample-id="sampleId" />
    </div>
    <p v-else class="soft">Fetching the sheet …</p>
  </div>
</template>

<style scoped>
.intake {
  height: 100%;
  padding: 0.7rem 0.8rem 3rem;
}
.cards {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  grid-template-areas: 'sample study' 'sample engine' 'claimed claimed' 'offered offered';
  grid-template-rows: auto 1fr auto auto;
  gap: 0.7rem;
}
.card {
  padding: 0.5rem 0.9rem 0.7rem;
}
.card h2 {
  margin-bottom: 0.3rem;
}
.sample {
  grid-area: sample;
}
.study {
  grid-area: study;
}
.engine {
  grid-area: engine;
}
.offered {
  grid-area: offered;
}
.claimed {
  grid-area: claimed;
}
.shelf {
  margin: 0.4rem 0 0;
  font-style: italic;
}
.note {
  margin: 0.4rem 0 0;
}
</style>
