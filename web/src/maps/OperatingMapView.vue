<script setup lang="ts">
/** The operating map: any quantity over temperature × speed or flow; beside it what the crosshair says, what if, inputs and sensitivity. */
import { computed, ref, toRef, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { ProblemError } from '@/api/client'
import CrosshairPanel from './CrosshairPanel.vue'
import ChoiceField from '@/shared/ChoiceField.vue'
import DownloadBar from '@/shared/DownloadBar.vue'
import FlowSplitPanel from './FlowSplitPanel.vue'
import LossBreakdownPanel from './LossBreakdownPanel.vue'
import MapChart, { type Crosshair } from './MapChart.vue'
import MapTable from './MapTable.vue'
import MapTrouble from './MapTrouble.vue'
import SensitivityPanel from './SensitivityPanel.vue'
import PressureProfilePanel from './PressureProfilePanel.vue'
import SwitchButtons from '@/shared/SwitchButtons.vue'
import WhatIfPanel from './WhatIfPanel.vue'
import { useEngine } from '@/circuit/useEngine'
import { useFigures } from '@/figures/useFigures'
import { bareKey, listedKey, useKeys } from '@/shared/useKeys'
import { useFilterAlone, useOperatingMap, type OperatingMap } from './useOperatingMap'
import { useSensitivity } from './useSensitivity'
import { useScenarios } from './useScenarios'
import { useFieldTitles, useSheet } from '@/sample/useSheet'
import { inputsByProvenance, strongestAssumptions } from './assumptions'
import { csv } from '@/shared/download'
import { lossesAt, lossSentence, pressureProfile } from './lossBreakdown'
import { mapQuantities, quantityNamed, type MapQuantityName } from './mapQuantities'
import { efficiencySource, mapSummary } from './mapSummary'
import { degrees } from '@/shared/degrees'
import { fromUnit, inUnit } from '@/catalogue/units'
import { plainNumber, significant } from '@/shared/numbers'
import { acrossUnitOf, aloneField, aloneRows, engineField, engineRows, fieldRows } from './mapView'
import { term } from '@/catalogue/catalogue'
import { useMapPlace } from './mapPlace'
import { usePreferences } from '@/shared/preferences'

const props = defineProps<{ sampleId: number }>()
const route = useRoute()
const preferences = usePreferences()
const place = useMapPlace()
const sampleId = toRef(props, 'sampleId')
const isAlone = computed(() => place.kind === 'alone')
const asked = computed(() => ({ condition: place.condition, size: place.size, scenario: place.scenario }))
const plain = computed(() => ({ ...asked.value, scenario: null }))
const sheet = useSheet(sampleId)
const needs = () => sheet.data.value?.needs.map
const needsAlone = () => sheet.data.value?.needs.filter_alone
const map = useOperatingMap(sampleId, asked, needs, () => !isAlone.value)
const base = useOperatingMap(sampleId, plain, needs, () => !isAlone.value)
const alone = useFilterAlone(sampleId, toRef(place, 'scenario'), needsAlone, isAlone)
const aloneBase = useFilterAlone(sampleId, null, needsAlone, isAlone)
const titles = useFieldTitles(sheet.data)
const engine = useEngine(sampleId)
const aloneIsThere = computed(() => sheet.data.value?.needs.filter_alone.length === 0)
const figures = useFigures(sampleId, () => place.panel === 'flow')
const scenarios = useScenarios(computed(() => Number(route.params.studyId)))

const CONDITIONS = [
  { label: 'Steady', value: 'steady' },
  { label: 'Filling', value: 'filling' },
] as const
const KINDS = [
  { label: 'In the engine', value: 'engine' },
  { label: 'Filter alone', value: 'alone' },
] as const
const PANELS = [
  { label: 'Here', value: 'here' },
  { label: 'What if', value: 'what-if' },
  { label: 'Flow', value: 'flow' },
  { label: 'Inputs', value: 'sensitivity' },
] as const
const EXPLAINED = {
  steady: 'Galleries full, the oil at one temperature.',
  filling: 'First seconds after a start: galleries empty, the filter takes all the pump delivers.',
} as const

const asTable = ref(false)
const chart = useTemplateRef<InstanceType<typeof MapChart>>('chart')
const active = computed(() => (isAlone.value ? alone : map))
const problem = computed(() => active.value.error.value)
/** A scenario that cannot be computed is told in its panel, and the unchanged map stays. */
const inScenario = computed(() => (place.scenario && problem.value ? problem.value.message : ''))
/** The filter alone is shown as soon as it can be; once for a sample, so that the engine can still be chosen. */
let shownFor: number | null = null
watch(
  [sampleId, problem, aloneIsThere],
  ([id, trouble, there]) => {
    // a what-if that lacks an input says so in its panel: the map stays as it was chosen
    if (shownFor === id || isAlone.value || !there || place.scenario || !(trouble instanceof ProblemError && trouble.missing.length)) return
    shownFor = id
    place.kind = 'alone'
  },
  { immediate: true },
)
const shownMap = computed(() => (inScenario.value ? base.data.value : map.data.value))
const shownAlone = computed(() => (inScenario.value ? aloneBase.data.value : alone.data.value))
const changed = computed(() => place.scenario !== null && !inScenario.value)
const unchangedMap = computed(() => (changed.value ? (base.data.value ?? null) : null))
const unchangedAlone = computed(() => (changed.value ? (aloneBase.data.value ?? null) : null))

const choices = computed(() =>
  mapQuantities()
    .filter((item) => !isAlone.value || item.of_filter_alone)
    .map((item) => ({ value: item.name, label: item.title })),
)
const quantityName = computed({ get: (): string => quantity.value.name, set: (name) => (place.quantity = name as MapQuantityName) })
const quantity = computed(() => {
  const match = quantityNamed(place.quantity)
  return isAlone.value && !match.of_filter_alone ? mapQuantities()[0]! : match
})
const title = computed(() =>
  quantity.value.name === 'media_fraction' ? `System efficiency at ${place.size} µm(c)` : quantity.value.title,
)
const field = computed(() => {
  if (isAlone.value)
    return shownAlone.value ? aloneField(shownAlone.value, quantity.value, unchangedAlone.value, preferences.family) : null
  return shownMap.value ? engineField(shownMap.value, quantity.value, unchangedMap.value, preferences.family) : null
})
/** Where the onset is looked at: the crosshair as it stood when the panel was opened, since moving it asks for nothing. */
const sensitivityAt = ref({ speed: place.speed, flow: place.flow })
watch(
  () => place.panel,
  () => (sensitivityAt.value = { speed: place.speed, flow: place.flow }),
)
const sensitivity = useSensitivity(
  sampleId,
  computed(() => ({
    condition: place.condition,
    quantity: quantity.value.name,
    speed_rpm: sensitivityAt.value.speed,
    filter_flow_l_min: isAlone.value ? sensitivityAt.value.flow : null,
    scenario: place.scenario,
  })),
  () => field.value !== null,
)
const acrossUnit = computed(() => acrossUnitOf(isAlone.value, preferences.family))
const acrossWords = (at: { speed: number; flow: number }) => `${plainNumber((isAlone.value ? at.flow : at.speed) * acrossUnit.value.factor, 4)} ${acrossUnit.value.symbol}`
const crosshair = computed<Crosshair>(() => {
  const index = (axis: readonly number[], value: number) => {
    const match = axis.findIndex((node) => node >= value - 1e-4 * Math.abs(value)) // nodes are rounded to six digits
    return match < 0 ? axis.length - 1 : match
  }
  if (!field.value) return { row: 0, column: 0 }
  return {
    row: index(field.value.temperatures, inUnit(place.temperature, field.value.temperatureUnit)),
    column: index(field.value.across, (isAlone.value ? place.flow : place.speed) * acrossUnit.value.factor),
  }
})
const values = computed(() => {
  const { row, column } = crosshair.value
  if (isAlone.value) return shownAlone.value ? aloneRows(shownAlone.value, unchangedAlone.value, row, column) : []
  return shownMap.value ? engineRows(shownMap.value, unchangedMap.value, row, column) : []
})
const unfiltered = computed(() => {
  const grid = (isAlone.value ? shownAlone.value : shownMap.value)?.unfiltered_percent
  const value = grid?.[crosshair.value.row]?.[crosshair.value.column] ?? null
  return value === null ? null : value / 100
})
function at(key: 'pump_kpa' | 'filter_inlet_kpa' | 'gallery_kpa' | 'bypass_fraction' | 'defect_fraction' | 'filter_flow_l_min', from = shownMap.value) {
  return from?.[key][crosshair.value.row]?.[crosshair.value.column] ?? null
}
const here = (from: Pick<OperatingMap, 'loss_breakdown'> | null | undefined) => (from ? lossesAt(from, crosshair.value.row, crosshair.value.column) : [])
const losses = computed(() => here(isAlone.value ? shownAlone.value : shownMap.value))
const lossesBefore = computed(() => here(isAlone.value ? unchangedAlone.value : unchangedMap.value))
const sentence = computed(() => lossSentence(losses.value, degrees(place.temperature, preferences.family), acrossWords(place)))
/** Where the profile begins: the pump outlet, or the inlet of the filter alone, above what is behind it. */
const before = computed(() => (isAlone.value ? losses.value.reduce((sum, row) => sum + row.total, 0) : (at('pump_kpa') ?? 0)))
const steps = computed(() => pressureProfile(losses.value, before.value))
const leftOut = computed(() => (isAlone.value ? shownAlone.value : shownMap.value)?.left_out ?? [])
const stepsBefore = computed(() => {
  const before = unchangedMap.value
  const pump = before ? at('pump_kpa', before) : null
  return pump === null ? null : { pump, inlet: at('filter_inlet_kpa', before!) ?? 0, gallery: at('gallery_kpa', before!) ?? 0 }
})
const bypassed = computed(() => {
  if (!isAlone.value) return at('bypass_fraction') ?? 0
  return shownAlone.value?.lift_mm[crosshair.value.row]?.[crosshair.value.column] ?? 0
})
const inputWords = computed(() => {
  const inputs = (isAlone.value ? shownAlone.value : shownMap.value)?.inputs ?? []
  const counts = inputsByProvenance(inputs).map((item) => `${item.keys.length} ${term('provenance', item.provenance)}`).join(', ')
  const strongest = sensitivity.data.value && !sensitivity.isPlaceholderData.value ? strongestAssumptions(sensitivity.data.value) : []
  return strongest.length ? `${counts}; most sensitive to the ${strongest.map((item) => term('assumption', item.name)).join(' and the ')}` : counts
})
/** Caption of a saved picture. */
const caption = computed(() => {
  const match = field.value?.grid.flat().flatMap((value) => (value === null ? [] : [value * field.value!.unit.factor])) ?? []
  const span = match.length ? `, ${significant(Math.min(...match), 2)} to ${significant(Math.max(...match), 3)} ${field.value!.unit.symbol}${quantity.value.is_logarithmic ? ' (log)' : ''}` : ''
  const how = isAlone.value ? 'filter alone' : place.condition
  return `${sheet.data.value?.label ?? ''}: ${title.value}${span}; ${how}${changed.value ? `, what if: ${place.draft.name}` : ''}. Hatched: bypass open. A model, not a test.`
})
const summary = computed(() => (field.value ? mapSummary(title.value, field.value, acrossUnit.value.symbol) : ''))
const efficiencyWords = computed(() => (quantity.value.name === 'media_fraction' && shownMap.value ? efficiencySource(shownMap.value.efficiency) : ''))

function move(to: Crosshair) {
  if (!field.value) return
  place.temperature = fromUnit(field.value.temperatures[to.row]!, field.value.temperatureUnit)
  place[isAlone.value ? 'flow' : 'speed'] = fromUnit(field.value.across[to.column]!, acrossUnit.value)
}

function setSize(event: Event) {
  const size = Number((event.target as HTMLInputElement).value.replace(',', '.'))
  if (size > 0.1 && size <= 1000) place.size = size
  else (event.target as HTMLInputElement).value = String(place.size)
}

const fileName = () => `${sheet.data.value?.label ?? 'filter'} ${quantity.value.title.toLowerCase()} ${isAlone.value ? 'alone' : place.condition}`

useKeys([
  {
    keys: 'c',
    does: 'switch between steady and filling',
    words: ['condition', 'start', 'first seconds'],
    matches: bareKey('c'), single: true,
    run: () => (place.condition = place.condition === 'steady' ? 'filling' : 'steady'),
  },
  {
    keys: 'q',
    does: 'the next quantity',
    words: ['what the map shows', 'differential pressure', 'flow split'],
    matches: bareKey('q'), single: true,
    run: () => {
      const names = choices.value.map((choice) => choice.value)
      place.quantity = names[(names.indexOf(quantity.value.name) + 1) % names.length]!
    },
  },
  { keys: 'a', does: 'the filter alone, in the engine', words: ['without engine', 'alone'], matches: bareKey('a'), single: true, run: () => (place.kind = isAlone.value ? 'engine' : 'alone') },
  { keys: 't', does: 'the map as a table or as a picture', words: ['numbers', 'table'], matches: bareKey('t'), single: true, run: () => (asTable.value = !asTable.value) },
  {
    keys: 'w',
    does: 'next panel: here, what if, flow, inputs and sensitivity',
    matches: bareKey('w'), single: true,
    run: () => {
      const names = PANELS.map((panel) => panel.value)
      place.panel = names[(names.indexOf(place.panel) + 1) % names.length]!
    },
  },
  listedKey('← → ↑ ↓', 'move the crosshair while the map has the focus (with Shift by four steps)'),
])
</script>

<template>
  <div class="view stack">
    <header class="head row wrap">
      <ChoiceField v-model="quantityName" class="quantity strong" :options="choices" label="What the map shows" />
      <label v-if="quantity.name === 'media_fraction'" class="size">
        at <input :value="place.size" inputmode="decimal" aria-label="Particle size in µm(c)" @change="setSize" /> µm(c)
      </label>
      <SwitchButtons v-model="place.kind" :options="KINDS" label="Circuit" small />
      <SwitchButtons v-if="!isAlone" v-model="place.condition" :options="CONDITIONS" label="Condition" small />
      <p v-if="isAlone && sheet.data.value?.needs.map.length" class="soft">No engine in it. In the engine, it needs {{ sheet.data.value.needs.map.map((need) => need.title).join(', ') }}.</p>
      <p v-else class="soft">{{ isAlone ? 'No engine in it: the surest statement.' : efficiencyWords || EXPLAINED[place.condition] }}</p>
      <span class="tools">
        <button type="button" class="tool" :aria-pressed="asTable" @click="asTable = !asTable">{{ asTable ? 'Picture' : 'Table' }}</button>
        <DownloadBar v-if="field" :name="fileName()" :caption="caption" :drawing="() => chart?.parts() ?? null" :table="() => csv(fieldRows(field!, title))" />
      </span>
    </header>
    <MapTrouble
      v-if="problem && !place.scenario"
      :error="problem"
      :is-alone="isAlone"
      :titles="titles"
      :sheet="sheet.data.value"
      @alone="place.kind = 'alone'"
    />
    <div v-else class="body fills" :class="{ stale: active.isPlaceholderData.value && !changed }">
      <p v-if="!field" class="soft trouble">Computing the map …</p>
      <MapTable v-else-if="asTable" :field="field" :crosshair="crosshair" :title="title" @move="move" />
      <MapChart v-else ref="chart" :field="field" :crosshair="crosshair" :summary="summary" :input-words="inputWords" @move="move" @inputs="place.panel = 'sensitivity'" />
      <aside class="stack scrolls">
        <SwitchButtons v-model="place.panel" :options="PANELS" label="Beside the map" small />
        <template v-if="place.panel === 'here' || place.panel === 'what-if'">
          <WhatIfPanel
            v-if="place.panel === 'what-if'"
            v-model="place.draft"
            :family="preferences.family"
            :grades="engine.data.value?.grades ?? []"
            :saved="scenarios.query.data.value ?? []"
            :problem="inScenario"
            :save="scenarios.save"
            :remove="scenarios.remove"
          />
          <CrosshairPanel
            v-if="field"
            :field="field"
            :across-unit="acrossUnit.symbol"
            :crosshair="crosshair"
            :family="preferences.family"
            :rows="values"
            :unfiltered="unfiltered"
            :bypassed="bypassed"
            :has-bypass="(isAlone ? shownAlone : shownMap)?.bypass_location !== 'none'"
            :compared="changed"
            @move="move"
          />
          <template v-if="losses.length && place.panel === 'here'">
            <LossBreakdownPanel :alone="isAlone" :rows="losses" :unchanged="lossesBefore" :sentence="sentence" :family="preferences.family" />
            <PressureProfilePanel
              :steps="steps"
              :pump="before"
              :inlet="isAlone ? before : (at('filter_inlet_kpa') ?? 0)"
              :gallery="isAlone ? 0 : (at('gallery_kpa') ?? 0)"
              :gauge="isAlone ? null : shownMap!.gauge"
              :unchanged="isAlone ? null : stepsBefore"
              :family="preferences.family"
            />
            <p v-if="leftOut.length" class="soft fine">
              Not measured, and left out of the loss:
              {{ leftOut.map((key) => term('left_out', key)).join(', ') }}.
            </p>
          </template>
        </template>
        <FlowSplitPanel
          v-else-if="place.panel === 'flow' && !isAlone"
          :section="figures.data.value?.section ?? null"
          :flow="at('filter_flow_l_min')"
          :bypass="at('bypass_fraction') ?? 0"
          :defects="at('defect_fraction') ?? 0"
          :family="preferences.family"
        />
        <p v-else-if="place.panel === 'flow'" class="soft">The flow split is drawn for the filter in the engine.</p>
        <SensitivityPanel
          v-else
          :sensitivity="sensitivity.data.value"
          :title="title"
          :where="acrossWords(sensitivityAt)"
          :titles="titles"
          :failed="sensitivity.error.value?.message ?? ''"
        />
      </aside>
    </div>
  </div>
</template>

<style scoped>
.view {
  height: 100%;
  padding: 0.5rem 1rem 0.3rem;
}
.head {
  padding-bottom: 0.35rem;
  min-width: 0;
}
.head p {
  margin: 0;
  font-size: var(--fine);
  line-height: 1.2;
  flex: 1 1 8rem;
  min-width: 0;
}
.quantity {
  flex-shrink: 0;
}
.size input {
  width: 3.2rem;
  text-align: right;
}
.tools {
  display: inline-flex;
  gap: 0.35rem;
  align-items: center;
}
.body {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 25.5rem;
  gap: 1rem;
}
.stale {
  opacity: 0.55;
}
aside {
  gap: 0.55rem;
  padding-right: 0.3rem;
}
.small {
  margin: 0;
}
.trouble {
  padding: 1.5rem 0;
}
</style>
