<script setup lang="ts">
/** The frame of a study: oil line, sample rack, results tape, and the station in the middle. */
import { computed, toRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import AppBar from '@/components/AppBar.vue'
import OilLine, { type Station } from '@/components/OilLine.vue'
import ResultsTape from '@/components/ResultsTape.vue'
import SampleRack from '@/components/SampleRack.vue'
import { useKeys } from '@/composables/useKeys'
import { useOperatingMap } from '@/composables/useOperatingMap'
import { useFieldTitles, useSheet } from '@/composables/useSheet'
import { useStudy } from '@/composables/useStudies'
import { headlines } from '@/lib/headlines'

const props = defineProps<{ studyId: number; sampleId: number }>()
const route = useRoute()
const router = useRouter()

const study = useStudy(toRef(props, 'studyId'))
const sheet = useSheet(toRef(props, 'sampleId'))
const map = useOperatingMap(toRef(props, 'sampleId'), 'steady')
const titles = useFieldTitles(sheet.data)

const samples = computed(() => study.data.value?.samples ?? [])
const stations = computed<Station[]>(() => {
  const done = sheet.data.value
    ? headlines(sheet.data.value.analysis.results, 'metric').filter((headline) => headline.settled).length
    : 0
  const ready = map.isSuccess.value && !map.isPlaceholderData.value
  return [
    { name: 'bench', title: 'Bench', fill: done / 5, progress: `${done} of 5 results`, key: '[' },
    {
      name: 'map',
      title: 'Operating map',
      fill: ready ? 1 : 0,
      progress: ready ? 'computed' : map.isError.value ? 'needs more' : 'computing',
      key: ']',
    },
  ]
})

function go(name: string) {
  void router.push({ name, params: { studyId: props.studyId, sampleId: props.sampleId } })
}

/** Take another sample in hand; the field in use stays in use, to measure one thing on every sample. */
function pick(sampleId: number) {
  const row = document.activeElement?.closest<HTMLElement>('[data-key]')
  const query = row?.dataset.key ? { field: row.dataset.key } : {}
  void router.push({ name: String(route.name), params: { studyId: props.studyId, sampleId }, query })
}

function need(key: string) {
  void router.push({ name: 'bench', params: { studyId: props.studyId, sampleId: props.sampleId }, query: { field: key } })
}

useKeys([
  { keys: '[', does: 'go to the bench', matches: (event) => event.key === '[', run: () => go('bench') },
  { keys: ']', does: 'go to the operating map', matches: (event) => event.key === ']', run: () => go('map') },
  {
    keys: '1 … 9',
    does: 'take that sample in hand (with Alt while typing)',
    matches: (event) => /^Digit[1-9]$/.test(event.code) && !event.ctrlKey && !event.shiftKey && !event.altKey,
    run: (event) => pickNumber(event),
  },
  {
    keys: 'Alt+1 … 9',
    does: 'take that sample in hand, from a field too',
    matches: (event) => /^Digit[1-9]$/.test(event.code) && event.altKey,
    run: (event) => pickNumber(event),
    inFields: true,
  },
])

function pickNumber(event: KeyboardEvent) {
  const sample = samples.value[Number(event.code.slice(-1)) - 1]
  if (sample) pick(sample.id)
}
</script>

<template>
  <div class="frame">
    <AppBar class="bar" :title="study.data.value?.name ?? ''" />
    <OilLine class="line" :stations="stations" :current="String(route.name)" @go="go" />
    <header class="top">
      <SampleRack v-if="samples.length" :samples="samples" :in-hand="sampleId" @pick="pick" />
      <p v-if="study.data.value?.question" class="question soft">{{ study.data.value.question }}</p>
    </header>
    <main class="station">
      <p v-if="study.error.value" class="said-wrong trouble">{{ study.error.value.message }}</p>
      <p v-else-if="sheet.error.value" class="said-wrong trouble">{{ sheet.error.value.message }}</p>
      <router-view v-else :key="sampleId" />
    </main>
    <ResultsTape
      v-if="sheet.data.value"
      class="tape"
      :analysis="sheet.data.value.analysis"
      :titles="titles"
      @need="need"
    />
  </div>
</template>

<style scoped>
.frame {
  height: 100%;
  display: grid;
  grid-template-columns: 8.6rem minmax(0, 1fr);
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  grid-template-areas: 'bar bar' 'line top' 'line station' 'tape tape';
}
.bar {
  grid-area: bar;
}
.line {
  grid-area: line;
  overflow-y: auto;
}
.top {
  grid-area: top;
  display: flex;
  gap: 1.2rem;
  align-items: center;
  padding: 0.3rem 1rem 0;
  border-bottom: 1px solid var(--line);
}
.question {
  margin: 0;
  font-size: 0.85rem;
  max-width: 34rem;
  margin-left: auto;
  font-style: italic;
}
.station {
  grid-area: station;
  min-height: 0;
  overflow: hidden;
}
.trouble {
  padding: 1.5rem;
}
.tape {
  grid-area: tape;
}
</style>
