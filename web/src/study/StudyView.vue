<script setup lang="ts">
/** The frame of a study: oil line, sample rack, results tape, the station in the middle; undo and the command box. */
import { useQueryClient } from '@tanstack/vue-query'
import { watchDebounced } from '@vueuse/core'
import { useToast } from 'primevue/usetoast'
import { computed, nextTick, ref, toRef, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import AppBar from '@/shared/AppBar.vue'
import DuplicateDialog from './DuplicateDialog.vue'
import OilLine from './OilLine.vue'
import ResultsTape from '@/results/ResultsTape.vue'
import SampleRack from './SampleRack.vue'

import WhatIfBar from '@/maps/WhatIfBar.vue'
import { useMapPlace } from '@/maps/mapPlace'
import { savesData } from '@/shared/savesData'
import { prefetchSheet, useBenchChanges, useFieldTitles, useSheet } from '@/sample/useSheet'
import { useShare } from './useShare'
import { useStudy } from './useStudies'
import { useStudyKeys } from './useStudyKeys'
import { commandEntries } from './commandEntries'
import { provideNextStation, refusedAt, stationOfKey, stationsOf } from '@/sample/stations'
import { everythingCopied, provideCopies } from '@/sample/copies'
import { useActions, useFindable } from '@/shared/actions'
import { saveAddress } from '@/shared/download'
import { catalogue } from '@/catalogue/catalogue'
import { useHelp } from '@/shared/help'
import { useStops } from '@/shared/useStops'
import { useKeptFocus } from '@/shared/useKeptFocus'

const props = defineProps<{ studyId: number; sampleId: number }>()
const route = useRoute()
const router = useRouter()
const mapPlace = useMapPlace()

const study = useStudy(toRef(props, 'studyId'))
const samples = computed(() => study.data.value?.samples ?? [])
const sheet = useSheet(toRef(props, 'sampleId'))
const changes = useBenchChanges(toRef(props, 'sampleId'))
const titles = useFieldTitles(sheet.data)

const queries = useQueryClient()
/** The sheets of the samples beside this one are fetched while the hand rests, so that the next is there at once. */
const NEIGHBOURS_PAUSE_MS = 250
/** As many as a key picks. */
const MOST_NEIGHBOURS = 9
watchDebounced(
  [() => props.sampleId, samples],
  async () => {
    if (savesData()) return
    const place = samples.value.findIndex((sample) => sample.id === props.sampleId)
    const near = samples.value.filter((_, i) => i !== place && i < MOST_NEIGHBOURS).sort((item, other) => far(item.id, place) - far(other.id, place))
    for (const { id } of near) await prefetchSheet(queries, id)
  },
  { debounce: NEIGHBOURS_PAUSE_MS, immediate: true },
)
const far = (id: number, from: number) => Math.abs(samples.value.findIndex((sample) => sample.id === id) - from)

const help = useHelp()
const toast = useToast()
/** How long what was done stays in sight. */
const TOLD_MS = 6000

const stations = computed(() => stationsOf(sheet.data.value, refusedAt(props.sampleId, sheet.data.value)))
/** A page that is no station, such as a working, has it. */
const hasTape = computed(() => catalogue().stations.find((station) => station.name === stationName.value)?.has_tape ?? true)
/** Another window has deleted it: what is still remembered of it is not shown as if it were there. */
const isGone = computed(() => sheet.error.value instanceof ProblemError && sheet.error.value.status === 404)
/** The station one is at: a page of one belongs to it. */
const stationName = computed(() => String(route.meta.pageOf ?? route.name))
/** Heading of the view, for those who do not see the line; a working has a heading of its own. */
const hereTitle = computed(() => {
  const station = stations.value.find((station) => station.name === stationName.value)
  return station ? `${station.title}, ${sheet.data.value?.label ?? ''}` : ''
})
const here = computed(() => ({ studyId: props.studyId, sampleId: props.sampleId }))

function tell(words: string) {
  toast.removeAllGroups()
  toast.add({ severity: 'secondary', summary: words, life: TOLD_MS })
}

const addressOf = (name: string) => router.resolve({ name, params: here.value }).href
const addressOfSample = (sampleId: number) => router.resolve({ name: String(route.name), params: { ...route.params, sampleId } }).href

function go(name: string) {
  void router.push({ name, params: here.value })
}

/** Go along the oil line; from a working, which is no station, to where one came from. */
function along(by: 1 | -1) {
  const place = stations.value.findIndex((station) => station.name === stationName.value)
  if (place < 0) return router.back()
  const next = stations.value[place + by]
  if (next) go(next.name)
}

provideNextStation(() => along(1))

/** Announcement of a change of sample to those who do not see the rack. */
const announced = ref('')
watch(
  () => props.sampleId,
  (id) => {
    const place = samples.value.findIndex((sample) => sample.id === id)
    announced.value = place < 0 ? '' : `Sample ${place + 1} selected: ${samples.value[place]!.label}`
  },
)
const frame = useTemplateRef<HTMLElement>('frame')
useShare(frame, () => [study.data.value?.name, hereTitle.value].filter(Boolean).join(', '))
useKeptFocus(frame, () => sheet.data.value)
const stops = useStops(frame)
const marked = computed(() => everythingCopied(sheet.data.value))
const copied = computed(() => Object.keys(marked.value))
provideCopies({ copied: marked, confirm: changes.confirmCopied })

async function confirmAll() {
  try {
    const { length } = copied.value
    await changes.confirmCopied(copied.value)
    tell(`Confirmed ${length} copied things. Ctrl+Z marks them again.`)
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    tell(error.message)
  }
}

/** Think of something otherwise: the map with its panel. */
function whatIf() {
  mapPlace.panel = 'what-if'
  go('map')
}

/** The whole study as its open document. */
function exportStudy() {
  saveAddress(`/api/studies/${props.studyId}/document`, `${study.data.value?.name ?? 'study'}.study.json`)
}

/** With every change, so that undo goes on where it is imported, and with what is saved for all studies. */
function exportWhole() {
  saveAddress(`/api/studies/${props.studyId}/document?history=true&library=true`, `${study.data.value?.name ?? 'study'}, whole.study.json`)
}

/** Confirm what is copied in the field in hand, and go on to the next. */
async function confirmHere() {
  const things = document.activeElement?.closest<HTMLElement>('[data-copied]')?.dataset.copied?.split(' ')
  if (!things) return tell('Nothing in this field is copied: there is nothing to confirm.')
  stops.step(1)
  try {
    await changes.confirmCopied(things)
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    tell(error.message)
  }
}

const duplicating = ref(false)

/** Unfinished text would be missing in the copy: a message says so first. */
function duplicate() {
  if (!isTypedAt('duplicate')) duplicating.value = true
}

/** Say where something is typed and not taken yet, and go there; false where nothing is. */
function isTypedAt(before: string): boolean {
  const typed = frame.value?.querySelector<HTMLElement>('[data-unsaved]')
  if (!typed) return false
  tell(`Something is typed into “${typed.dataset.unsaved}” and not taken yet: press Enter to take it or Esc to drop it, then ${before}.`)
  stops.enter(typed)
  return true
}

/** Put the selected sample away, delete it, or put it back. */
async function setStatus(status: Schemas['StatusIn']['status']) {
  if (status === 'deleted' && isTypedAt('delete')) return
  const label = samples.value.find((sample) => sample.id === props.sampleId)?.label ?? ''
  try {
    await changes.setStatus(status)
    if (status === 'deleted') await leaveSample() // what takes it back is said once it can be done
    const done = { in_use: 'put back', archived: 'archived: kept, and left out of comparisons', deleted: 'deleted' }[status]
    tell(`“${label}” is ${done}. Ctrl+Z takes it back${status === 'deleted' ? ', or the list of studies puts it back' : ''}.`)
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    tell(error.message)
  }
}

function begun(id: number) {
  const name = route.meta.bench === true ? String(route.name) : 'short'
  void router.push({ name, params: { ...here.value, sampleId: id } })
}

/** Select another sample; the field stays the same, to measure one thing on every sample. */
function pick(sampleId: number) {
  const row = document.activeElement?.closest<HTMLElement>('[data-key]')
  const query = row?.dataset.key ? { field: row.dataset.key } : {}
  void router.push({ name: String(route.name), params: { ...route.params, studyId: props.studyId, sampleId }, query })
}

function field(key: string) {
  // pages of a station, with no field of that name
  if (key === 'uses') return go('verdict')
  if (key === 'arithmetic') return go('sums')
  void router.push({ name: stationOfKey(key, sheet.data.value), params: here.value, query: { field: key } })
}

/** Show what was moved: in the view in hand if it is there; the short sheet, and the view in which a sample came back, stay. */
function show(key: string) {
  if (stops.focusKey(key) || stationName.value === 'short' || key === 'sample.label') return
  field(key)
}

function working(result: string) {
  void router.push({ name: 'working', params: { ...here.value, result } })
}

const ofWindow = (change: Schemas['MovableOut']) => (change.is_own ? '' : ' what another window did')

async function move(way: 'undo' | 'redo') {
  try {
    // only a sheet that is up to date knows what there is to move
    if (sheet.isFetching.value) await sheet.refetch({ cancelRefetch: false })
    const moved = await changes[way]()
    tell(
      way === 'undo'
        ? `Undone: ${moved.words}. Ctrl+Shift+Z redoes it.`
        : `Redone: ${moved.words}. Ctrl+Z undoes it.`,
    )
    if (moved.sheet ?? moved.changes) show(moved.place)
    else await leaveSample()
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    tell(error.message)
  }
}

/** The sample is no longer there: go to another one of the study. */
async function leaveSample() {
  const other = samples.value.find((sample) => sample.id !== props.sampleId)
  await router.replace(other ? { name: 'outside', params: { ...here.value, sampleId: other.id } } : { name: 'studies' })
  await nextTick()
}

async function addSample() {
  const labels = new Set(samples.value.map((sample) => sample.label))
  let number = samples.value.length + 1
  while (labels.has(`Sample ${number}`)) number += 1
  try {
    const path = { study_id: props.studyId }
    const body = { text: `Sample ${number}` }
    const added = await unwrap(client.POST('/api/studies/{study_id}/samples', { params: { path }, body }))
    void router.push({
      name: 'intake',
      params: { ...here.value, sampleId: added.sample_id },
      query: { field: 'sample.label' },
    })
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    tell(error.message)
  }
}

useFindable(() => commandEntries({ sheet: sheet.data.value, samples: samples.value, pick, field, go, working, explain: help.explain }))
useActions(() => [
  { title: 'Undo', words: ['take back'], run: () => void move('undo') },
  { title: 'Redo', words: ['repeat'], run: () => void move('redo') },
  { title: 'Add a sample', words: ['new filter', 'another one', 'empty sample'], run: () => void addSample() },
  { title: 'Duplicate this sample', words: ['copy', 'second filter', 'same part', 'template', 'clone'], run: duplicate },
  { title: 'What if: change engine, oil or filter', words: ['scenario', 'what if', 'try out', 'stuck', 'clogged', 'loading'], run: whatIf },
  { title: 'Save parts as a template', words: ['template', 'reuse'], run: duplicate },
  ...(copied.value.length
    ? [{ title: `Confirm all ${copied.value.length} copied things of this sample`, words: ['copied', 'assumed', 'same'], run: () => void confirmAll() }]
    : []),
  { title: 'Archive this sample', words: ['put away', 'leave out'], run: () => void setStatus('archived') },
  { title: 'Delete this sample', words: ['remove', 'bin', 'throw away'], run: () => void setStatus('deleted') },
  { title: 'Export the study with its history, saved engines and templates', words: ['journal', 'undo', 'everything', 'library', 'whole'], run: exportWhole },
  { title: 'Export the study document', words: ['save', 'download', 'json', 'share', 'backup'], run: exportStudy },
])

useStudyKeys({ along, move, confirmHere, duplicate, pick: (place) => samples.value[place] && pick(samples.value[place].id) })
</script>

<template>
  <div class="frame">
    <AppBar class="bar" :title="study.data.value?.name ?? ''">
      <button
        type="button"
        class="tool"
        :disabled="!sheet.data.value?.undo"
        :title="sheet.data.value?.undo ? `Undo${ofWindow(sheet.data.value.undo)}: ${sheet.data.value.undo.words} (Ctrl+Z)` : 'Nothing to undo'"
        @click="move('undo')"
      >
        Undo
      </button>
      <button v-if="sheet.data.value?.redo" type="button" class="tool" :title="`Redo${ofWindow(sheet.data.value.redo)}: ${sheet.data.value.redo.words} (Ctrl+Shift+Z)`" @click="move('redo')">
        Redo
      </button>
    </AppBar>
    <OilLine class="line scrolls" :stations="stations" :current="stationName" :address="addressOf" @go="go" />
    <section class="top row" aria-label="Samples of this study">
      <SampleRack v-if="samples.length" :samples="samples" :in-hand="sampleId" :bench="route.meta.bench === true" :address="addressOfSample" @pick="pick" @add="addSample" @duplicate="duplicate" @status="setStatus" />
      <p v-if="study.data.value?.question && samples.length < 5" class="question soft small flush" :title="study.data.value.question">{{ study.data.value.question }}</p>
    </section>
    <WhatIfBar class="thought" />
    <p class="unseen" role="status" data-announced>{{ announced }}</p>
    <main ref="frame" class="station">
      <h1 v-if="hereTitle" class="unseen">{{ hereTitle }}</h1>
      <p v-if="study.error.value && !study.data.value" class="said-wrong trouble">{{ study.error.value.message }}</p>
      <p v-else-if="sheet.error.value && (!sheet.data.value || isGone)" class="said-wrong trouble">{{ sheet.error.value.message }}</p>
      <router-view v-else :key="sampleId" />
    </main>
    <ResultsTape
      v-if="sheet.data.value && hasTape"
      class="tape"
      :sheet="sheet.data.value"
      :titles="titles"
      @need="field"
      @working="working"
    />
    <DuplicateDialog v-model:open="duplicating" :study-id="studyId" :samples="samples" :sample-id="sampleId" @made="begun" />
  </div>
</template>

<style scoped>
.frame {
  height: 100%;
  display: grid;
  grid-template-columns: 9.4rem minmax(0, 1fr);
  grid-template-rows: auto auto auto minmax(0, 1fr) auto;
  grid-template-areas: 'bar bar' 'line top' 'line thought' 'line station' 'tape tape';
}
.bar {
  grid-area: bar;
}
.line {
  grid-area: line;
}
.top {
  grid-area: top;
  gap: 1.2rem;
  padding: 0.3rem 1rem 0;
  border-bottom: 1px solid var(--line);
}
.question {
  flex: 1 1 0;
  min-width: 0;
  max-height: 2.6em;
  line-height: 1.3;
  overflow: hidden;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  font-style: italic;
}
.thought {
  grid-area: thought;
}
.unseen {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
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
@media print {
  .frame {
    display: block;
    height: auto;
  }
  .bar,
  .line,
  .top,
  .tape {
    display: none;
  }
  .station {
    overflow: visible;
  }
}
</style>
