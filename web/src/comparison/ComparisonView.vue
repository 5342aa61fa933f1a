<script setup lang="ts">
/** All samples side by side: what restricts, when oil goes unfiltered, slices with their bands. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, toRef, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import ChoiceField from '@/shared/ChoiceField.vue'
import DownloadBar from '@/shared/DownloadBar.vue'
import ComparisonPages from './ComparisonPages.vue'
import ComparisonTable from './ComparisonTable.vue'
import SliceChart from './SliceChart.vue'
import SwitchButtons from '@/shared/SwitchButtons.vue'
import { bareKey, useKeys } from '@/shared/useKeys'
import type { Condition } from '@/maps/useOperatingMap'
import { useFieldTitles, useSheet } from '@/sample/useSheet'
import { useSlices } from './useSlices'
import { csv } from '@/shared/download'
import { mapQuantities, quantityNamed, unitOf, type MapQuantityName } from '@/maps/mapQuantities'
import { sampleColour } from '@/shared/sampleColours'
import { fromUnit, inUnit, shownUnit } from '@/catalogue/units'
import { degrees } from '@/shared/degrees'
import { useMapPlace } from '@/maps/mapPlace'
import { usePreferences } from '@/shared/preferences'

const props = defineProps<{ studyId: number; sampleId: number }>()
const router = useRouter()
const preferences = usePreferences()
const place = useMapPlace()
const studyId = toRef(props, 'studyId')
const titles = useFieldTitles(useSheet(toRef(props, 'sampleId')).data)

/** The filters, or the selected one in each saved scenario. */
const what = ref<'filters' | 'scenarios'>('filters')
const WHATS = [
  { label: 'Filters', value: 'filters' },
  { label: 'Scenarios', value: 'scenarios' },
] as const
const asked = computed(() => ({
  temperature_c: place.temperature,
  speed_rpm: place.speed,
  condition: place.condition,
  scenario: what.value === 'filters' ? place.scenario : null,
  sample_id: what.value === 'scenarios' ? props.sampleId : null,
}))
const comparison = useQuery({
  queryKey: queryKeys.comparison(studyId, asked),
  queryFn: () =>
    unwrap(client.POST('/api/studies/{study_id}/comparison', { params: { path: { study_id: props.studyId } }, body: asked.value })),
  placeholderData: keepPreviousData,
  shallow: true,
  retry: false,
})

/** Read where it was computed before; asked once what is looked at is there. */
const behaviour = useQuery({
  queryKey: queryKeys.behaviour(studyId),
  queryFn: () => unwrap(client.GET('/api/studies/{study_id}/behaviour', { params: { path: { study_id: props.studyId } } })),
  enabled: () => comparison.isSuccess.value,
  retry: false,
})
const isAsItIs = computed(() => what.value === 'filters' && !place.scenario)

const CONDITIONS: readonly { label: string; value: Condition }[] = [
  { label: 'Steady', value: 'steady' },
  { label: 'Filling', value: 'filling' },
]
const ALONGS = [
  { label: 'Along temperature', value: 'temperature' },
  { label: 'Along speed', value: 'speed' },
] as const

const along = ref<'temperature' | 'speed'>('temperature')
const hidden = ref<string[]>([])
const { state, run, stop } = useSlices()
const chart = useTemplateRef<InstanceType<typeof SliceChart>>('chart')
const quantity = computed(() => quantityNamed(place.quantity))
const quantityName = computed({ get: (): string => place.quantity, set: (name) => (place.quantity = name as MapQuantityName) })
const quantities = computed(() => mapQuantities().map((quantity) => ({ value: quantity.name, label: quantity.title_in_slice || quantity.title })))
const title = computed(() => quantity.value.title_in_slice || quantity.value.title)
const ids = computed(() => comparison.data.value?.filters.map((side) => side.key) ?? [])
const shown = computed(() => ids.value.filter((id) => !hidden.value.includes(id)))
const sliceAsked = computed(() => ({
  keys: shown.value,
  along: along.value,
  at: along.value === 'temperature' ? place.speed : place.temperature,
  quantity: place.quantity,
  condition: place.condition,
  scenario: asked.value.scenario,
}))

let pause: ReturnType<typeof setTimeout> | undefined
const SETTLED_MS = 250
function start() {
  clearTimeout(pause)
  if (shown.value.length) pause = setTimeout(() => void run(props.studyId, sliceAsked.value), SETTLED_MS)
}
watch(sliceAsked, (now, before) => JSON.stringify(now) !== JSON.stringify(before) && start(), { immediate: true })

const down = computed(() => shownUnit('c', preferences.family))
const bands = computed(() =>
  ids.value.flatMap((id, i) => {
    const band = state.bands[id]
    const side = comparison.data.value?.filters[i]
    if (!band || !side || hidden.value.includes(id)) return []
    const isWarming = along.value === 'temperature'
    return [{ ...band, along: isWarming ? band.along.map((celsius) => inUnit(celsius, down.value)) : band.along, id, label: side.label, number: i + 1, colour: sampleColour(i) }]
  }),
)
const unit = computed(() => shownUnit(unitOf(quantity.value), preferences.family))
const acrossTitle = computed(() =>
  along.value === 'temperature' ? `oil temperature, ${down.value.symbol}, at ${place.speed} rpm` : `engine speed, rpm, at ${degrees(place.temperature, preferences.family)}`,
)
const share = computed(() => Math.round((100 * state.done) / Math.max(1, state.total)))

const typed = ref({ temperature: '', speed: String(place.speed) })
watch(down, (unit) => (typed.value.temperature = String(inUnit(place.temperature, unit))), { immediate: true })
const refusal = ref('')
function go() {
  refusal.value = ''
  const [shown, speed] = [typed.value.temperature, typed.value.speed].map((text) => (text.trim() ? Number(text.replace('−', '-').replace(',', '.')) : NaN))
  const temperature = fromUnit(shown!, down.value)
  if (!(temperature >= -60 && temperature <= 200)) return void (refusal.value = `Type an oil temperature between ${degrees(-60, preferences.family)} and ${degrees(200, preferences.family)}.`)
  if (!(speed! >= 100 && speed! <= 20000)) return void (refusal.value = 'Type an engine speed between 100 and 20000 rpm.')
  place.temperature = temperature
  place.speed = speed!
}

function toggle(id: string) {
  hidden.value = hidden.value.includes(id) ? hidden.value.filter((item) => item !== id) : [...hidden.value, id]
}

function pick(sampleId: number) {
  void router.push({ name: 'comparison', params: { studyId: props.studyId, sampleId } })
}

function rows() {
  const heading = [acrossTitle.value, ...bands.value.flatMap((band) => ['', ' low 2.5 %', ' high 97.5 %'].map((end) => `${band.label}${end}, ${unit.value.symbol}`))]
  const times = (value: number | null) => (value === null ? null : Number((value * unit.value.factor).toPrecision(5)))
  const lines = (bands.value[0]?.along ?? []).map((at, i) => [at, ...bands.value.flatMap((band) => [band.value, band.low, band.high].map((values) => times(values[i] ?? null)))])
  return csv([heading, ...lines])
}

useKeys([
  { keys: 'c', does: 'switch between steady and filling', matches: bareKey('c'), single: true, run: () => (place.condition = place.condition === 'steady' ? 'filling' : 'steady') },
  { keys: 'v', does: 'filters, scenarios', matches: bareKey('v'), single: true, run: () => (what.value = what.value === 'filters' ? 'scenarios' : 'filters') },
  { keys: 's', does: 'stop the Monte Carlo, or start it again', matches: bareKey('s'), single: true, run: () => (state.running ? stop() : start()) },
  { keys: 'x', does: 'slice along temperature, along speed', matches: bareKey('x'), single: true, run: () => (along.value = along.value === 'speed' ? 'temperature' : 'speed') },
])
</script>

<template>
  <div class="view stack">
    <header class="head row">
      <ComparisonPages />
      <form class="where" @submit.prevent="go">
        <label>at <input v-model="typed.temperature" :aria-label="`Oil temperature in ${down.symbol}`" inputmode="decimal" @change="go" /> {{ down.symbol }}</label>
        <label><input v-model="typed.speed" aria-label="Engine speed in rpm" inputmode="decimal" @change="go" /> rpm</label>
      </form>
      <SwitchButtons v-model="what" :options="WHATS" label="What is compared" small />
      <SwitchButtons v-model="place.condition" :options="CONDITIONS" label="Condition" small />
      <p v-if="refusal" class="said-wrong" role="alert">{{ refusal }}</p>
      <p v-else-if="what === 'scenarios' && comparison.data.value?.filters.length === 1" class="soft">No scenario is saved yet: try one beside the map, name it, save it.</p>
      <p v-else class="soft">An open bypass is an emergency path. A model, not a test.</p>
    </header>
    <p v-if="comparison.error.value" class="said-wrong">{{ comparison.error.value.message }}</p>
    <p v-else-if="!comparison.data.value" class="soft">Computing the comparison …</p>
    <template v-else>
      <ComparisonTable
        :class="{ stale: comparison.isPlaceholderData.value }"
        :comparison="comparison.data.value"
        :bands="along === 'temperature' ? state.bands : {}"
        :behaviour="isAsItIs ? (behaviour.data.value ?? []) : null"
        :in-hand="sampleId"
        :shown="shown"
        :titles="titles"
        :who="what === 'filters' ? 'filter' : 'scenario'"
        :family="preferences.family"
        @pick="pick"
        @toggle="toggle"
      />
      <div class="slice-head row">
        <ChoiceField v-model="quantityName" :options="quantities" label="What the slice shows" />
        <SwitchButtons v-model="along" :options="ALONGS" label="Slice" small />
        <span v-if="state.running" class="progress small">
          <progress :value="state.done" :max="state.total" aria-label="Monte Carlo" /> {{ share }} %
          <button type="button" class="tool" data-slice="stop" @click="stop">Stop</button>
        </span>
        <span v-else class="soft fine">
          <template v-if="state.failed"><span class="said-wrong">{{ state.failed }}</span></template>
          <template v-else-if="state.stopped">stopped <button type="button" class="tool" data-slice="start" @click="start">start again</button></template>
          <template v-else-if="bands[0]">95 % bands of {{ bands[0].draws }} draws over readings, engine and model<template v-if="bands.some((band) => band.impossible)">, impossible ones left out</template></template>
        </span>
        <DownloadBar v-if="bands.length" class="right push" :name="`slice ${title.toLowerCase()}`" :caption="`${title} along ${acrossTitle}; ${place.condition}; 95 % bands of ${bands[0]?.draws} draws. A model, not a test.`" :drawing="() => chart?.parts() ?? null" :table="rows" />
      </div>
      <p v-if="!bands.length && !state.running" class="soft">No slice yet: it needs a filter that can be computed, and a tick before it.</p>
      <SliceChart
        v-else
        ref="chart"
        class="slice"
        :bands="bands"
        :title="title"
        :across-title="acrossTitle"
        :unit="unit"
        :is-log="quantity.is_logarithmic"
        :mark="along === 'temperature' ? inUnit(place.temperature, down) : place.speed"
      />
    </template>
  </div>
</template>

<style scoped>
.view {
  height: 100%;
  padding: 0.5rem 1rem 0.3rem;
  gap: 0.4rem;
}
.head,
.slice-head {
  gap: 0.8rem;
}
.slice-head :deep(.choice) {
  flex: none;
}
.head p {
  margin: 0;
  font-size: var(--small);
}
.where {
  display: flex;
  gap: 0.7rem;
}
.where label {
  white-space: nowrap;
}
.where input {
  width: 4.2rem;
  text-align: right;
  font-family: var(--typed);
}
.slice {
  flex: 1;
  min-height: 12rem;
}
.progress {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
}
progress {
  accent-color: var(--hand);
  width: 9rem;
}
.stale {
  opacity: 0.55;
}
</style>
