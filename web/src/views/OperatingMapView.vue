<script setup lang="ts">
/** The operating map: the field, the crosshair's values and the ledger beside it. */
import { computed, toRef } from 'vue'
import { ProblemError } from '@/api/client'
import CrosshairPanel from '@/components/CrosshairPanel.vue'
import LedgerBars from '@/components/LedgerBars.vue'
import SwitchButtons from '@/components/SwitchButtons.vue'
import MapChart, { type Crosshair } from '@/components/MapChart.vue'
import { bareKey, useKeys } from '@/composables/useKeys'
import { useOperatingMap, type Condition } from '@/composables/useOperatingMap'
import { useFieldTitles, useSheet } from '@/composables/useSheet'
import { fieldOf, inputName } from '@/lib/inputNames'
import { stationOfKey } from '@/lib/stations'
import { ledgerAt } from '@/lib/ledger'
import { mapSummary } from '@/lib/mapSummary'
import { useMapPlace } from '@/stores/mapPlace'
import { usePreferences } from '@/stores/preferences'

const props = defineProps<{ sampleId: number }>()
const preferences = usePreferences()
const place = useMapPlace()
const sampleId = toRef(props, 'sampleId')
const condition = toRef(place, 'condition')
const map = useOperatingMap(sampleId, condition)
const sheet = useSheet(sampleId)
const titles = useFieldTitles(sheet.data)

const CONDITIONS: readonly { label: string; value: Condition }[] = [
  { label: 'Steady', value: 'steady' },
  { label: 'Filling', value: 'filling' },
]
const EXPLAINED: Record<Condition, string> = {
  steady: 'Galleries full, the oil at one temperature.',
  filling: 'The first seconds after a start: galleries empty, the filter takes all that the pump delivers.',
}

const crosshair = computed<Crosshair>(() => {
  const found = map.data.value
  const index = (axis: readonly number[] | undefined, value: number) =>
    Math.max(0, (axis ?? []).findIndex((node) => node >= value))
  return { row: index(found?.temperature_c, place.temperature), column: index(found?.speed_rpm, place.speed) }
})
const ledger = computed(() =>
  map.data.value ? ledgerAt(map.data.value, crosshair.value.row, crosshair.value.column) : [],
)
const summary = computed(() => (map.data.value ? mapSummary(map.data.value, preferences.family) : ''))
const where = computed(() => (map.error.value instanceof ProblemError ? map.error.value.where : ''))
const missing = computed(() => (map.error.value instanceof ProblemError ? map.error.value.missing : []))

const LEFT_OUT: Record<string, string> = {
  'holes.centre_tube': 'centre tube holes',
  'can.inside_diameter': "the way along the can (the can's inside diameter)",
  'anti_drain.lift': 'anti-drain valve (its lift)',
}

function move(to: Crosshair) {
  const found = map.data.value
  if (!found) return
  place.temperature = found.temperature_c[to.row]!
  place.speed = found.speed_rpm[to.column]!
}

useKeys([
  {
    keys: 'c',
    does: 'switch between steady and filling',
    matches: bareKey('c'),
    run: () => (place.condition = place.condition === 'steady' ? 'filling' : 'steady'),
  },
  {
    keys: '← → ↑ ↓',
    does: 'move the crosshair while the map has the focus (with Shift by four steps)',
    matches: () => false,
    run: () => undefined,
  },
])
</script>

<template>
  <div class="view">
    <header class="head">
      <h1>Element differential pressure</h1>
      <SwitchButtons v-model="place.condition" :options="CONDITIONS" label="Condition" />
      <p class="soft">{{ EXPLAINED[condition] }}</p>
    </header>
    <div v-if="map.error.value" class="trouble">
      <h2>The map cannot be computed yet</h2>
      <template v-if="missing.length">
        <p>It needs these of the filter, the oil or the engine:</p>
        <ul>
          <li v-for="key in missing" :key="key">
            <router-link v-if="fieldOf(key, titles)" :to="{ name: stationOfKey(fieldOf(key, titles)!, sheet.data.value), query: { field: fieldOf(key, titles) } }">
              {{ inputName(key, titles) }}
            </router-link>
            <template v-else>
              {{ inputName(key, titles) }} <span class="soft">(comes with the study document, as {{ key }})</span>
            </template>
          </li>
        </ul>
      </template>
      <p v-else class="said-wrong">
        <router-link v-if="fieldOf(where, titles)" :to="{ name: stationOfKey(fieldOf(where, titles)!, sheet.data.value), query: { field: fieldOf(where, titles) } }">
          {{ inputName(where, titles) }}
        </router-link>
        <template v-else-if="where">{{ inputName(where, titles) }}</template>
        {{ map.error.value.message }}
      </p>
    </div>
    <p v-else-if="!map.data.value" class="soft trouble">Computing the map …</p>
    <div v-else class="body" :class="{ stale: map.isPlaceholderData.value }">
      <MapChart :map="map.data.value" :crosshair="crosshair" :family="preferences.family" :summary="summary" @move="move" />
      <aside>
        <CrosshairPanel :map="map.data.value" :crosshair="crosshair" :family="preferences.family" @move="move" />
        <LedgerBars v-if="ledger.length" :rows="ledger" :family="preferences.family" />
        <p v-if="map.data.value.left_out.length" class="soft small">
          Not measured, and left out of the loss:
          {{ map.data.value.left_out.map((key) => LEFT_OUT[key] ?? key).join(', ') }}.
        </p>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.view {
  height: 100%;
  display: flex;
  flex-direction: column;
  padding: 0.6rem 1rem 0.4rem;
}
.head {
  display: flex;
  align-items: center;
  gap: 1rem;
  padding-bottom: 0.4rem;
}
.head h1 {
  font-size: 1.2rem;
}
.head p {
  margin: 0;
  font-size: 0.88rem;
}
.body {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 24.5rem;
  gap: 1.2rem;
}
.stale {
  opacity: 0.55;
}
aside {
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  padding-right: 0.3rem;
}
.small {
  font-size: 0.8rem;
  margin: 0;
}
.trouble {
  padding: 1.5rem 0;
}
</style>
