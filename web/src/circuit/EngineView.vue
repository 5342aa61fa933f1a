<script setup lang="ts">
/** Oil and engine: the viscosity line, the circuit with its numbers, the check at the hot point, the library. */
import { computed, nextTick, ref, toRef } from 'vue'
import CircuitDrawing from './CircuitDrawing.vue'
import EngineLibrary from './EngineLibrary.vue'
import DetailFields from '@/entry/DetailFields.vue'
import HotPointPanel from './HotPointPanel.vue'
import OilPanel from './OilPanel.vue'
import { catalogue, details } from '@/catalogue/catalogue'
import { previewEngine, useEngine, useEngineLibrary } from './useEngine'
import { listedKey, useKeys } from '@/shared/useKeys'
import { useBenchChanges, useSheet } from '@/sample/useSheet'
import { useBenchStops } from '@/sample/useBenchStops'
import { usePreferences } from '@/shared/preferences'

const props = defineProps<{ sampleId: number }>()
const preferences = usePreferences()
const sampleId = toRef(props, 'sampleId')
const sheet = useSheet(sampleId)
const engine = useEngine(sampleId)
const changes = useBenchChanges(sampleId)
const library = useEngineLibrary(sampleId)
const part = ref('pump')

/** Which part of the drawing a detail belongs to. */
function partOf(key: string): string | null {
  return catalogue().circuit_parts.find((part) => part.details.includes(key))?.name ?? null
}
const chosen = computed(() => catalogue().circuit_parts.find((item) => item.name === part.value) ?? catalogue().circuit_parts[0]!)
const fields = computed(() => chosen.value.details.flatMap((key) => details().get(key) ?? []))
const oilDetails = computed(() => [...details().values()].filter((detail) => detail.key.startsWith('oil.')))
const texts = computed(() => sheet.data.value?.details ?? {})

/** In the drawing every number is in the family's unit. */
const drawn = computed(() => {
  const numbers = sheet.data.value?.detail_numbers ?? {}
  return Object.fromEntries(Object.entries(texts.value).map(([key, text]) => [key, numbers[key]?.[preferences.family] ?? text]))
})

async function choose(name: string) {
  part.value = name
  await nextTick()
  station.value?.querySelector<HTMLInputElement>('.fields input')?.focus()
}

useKeys([
  listedKey('Enter', 'save the number and go to the next (Shift: the one before)'),
  listedKey('Esc', 'back to the saved value'),
])

const { root: station, next, back } = useBenchStops({
  ready: () => sheet.isSuccess.value && engine.isSuccess.value,
  before: (key) => (part.value = partOf(key) ?? part.value),
  begin: (stops) => stops.enter(stops.stops()[0]),
})
</script>

<template>
  <div ref="root" class="engine">
    <div v-if="engine.data.value && sheet.data.value" class="cards">
      <div class="card stack">
        <OilPanel :line="engine.data.value.oil" :revision="engine.data.value.oil_revision" :grades="engine.data.value.grades" :family="preferences.family" :set-oil="changes.setOil" />
        <div v-if="engine.data.value.oil" class="two">
          <DetailFields :sample-id="sampleId" :details="oilDetails" :texts="texts" :numbers="sheet.data.value.detail_numbers" :questions="sheet.data.value.detail_questions" :family="preferences.family" :revisions="sheet.data.value.revisions" :set="changes.setDetail" @next="next" @previous="back" />
        </div>
      </div>
      <div class="card stack">
        <div class="named spread">
          <h2>{{ texts['engine.name'] ?? 'Engine' }}</h2>
          <button type="button" class="link small" :class="{ on: part === 'engine' }" @click="choose('engine')">name and source</button>
        </div>
        <CircuitDrawing :details="drawn" :chosen="part" @choose="choose" />
        <section class="fields" :aria-label="chosen.title">
          <h3>{{ chosen.title }}</h3>
          <div class="two">
            <DetailFields :sample-id="sampleId" :details="fields" :texts="texts" :numbers="sheet.data.value.detail_numbers" :questions="sheet.data.value.detail_questions" :family="preferences.family" :revisions="sheet.data.value.revisions" :set="changes.setDetail" @next="next" @previous="back" />
          </div>
        </section>
        <HotPointPanel
          :point="engine.data.value.hot_point"
          :problem="engine.data.value.problem"
          :missing="engine.data.value.missing"
          :family="preferences.family"
        />
        <EngineLibrary
          :engines="engine.data.value.library"
          :family="preferences.family"
          :preview="(name) => previewEngine(sampleId, name)"
          :take="changes.takeEngine"
          :save="library.save"
          :remove="library.remove"
        />
      </div>
    </div>
    <p v-else class="soft">Fetching oil and engine …</p>
  </div>
</template>

<style scoped>
.engine {
  height: 100%;
  overflow-y: auto;
  padding: 0.6rem 0.8rem 2rem;
}
.cards {
  display: grid;
  grid-template-columns: minmax(0, 0.85fr) minmax(0, 1fr);
  gap: 0.7rem;
  align-items: start;
}
.card {
  padding: 0.5rem 0.9rem 0.7rem;
  gap: 0.45rem;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  column-gap: 0.9rem;
}
.two :deep(.detail) {
  grid-template-columns: minmax(0, 1fr) 8.8rem;
  font-size: var(--small);
  align-items: start;
}
.two :deep(.detail.words) {
  grid-column: 1 / -1;
  grid-template-columns: 8rem minmax(0, 1fr);
}
.two :deep(.detail p) {
  grid-column: 1 / -1;
}
.fields {
  border-top: 1px solid var(--line);
  padding-top: 0.3rem;
  min-height: 7.4rem;
}
.fields h3 {
  font-size: 1rem;
}
.named {
  display: flex;
  align-items: baseline;
}
.link {
  text-decoration: underline dotted;
}
.link.on {
  color: var(--hand);
}
</style>
