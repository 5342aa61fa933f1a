<script setup lang="ts">
/** What-if panel: changes to engine, oil and filter, each drawn against the unchanged filter. */
import { computed, reactive, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { terms } from '@/catalogue/catalogue'
import ChoiceField from '@/shared/ChoiceField.vue'
import { isChanged, typedChanges } from './scenario'
import { significant } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

type Scenario = Schemas['Scenario']
const draft = defineModel<Scenario>({ required: true })
const props = defineProps<{
  family: UnitFamily
  grades: readonly string[]
  saved: readonly Schemas['ScenarioOut'][]
  /** Why the scenario cannot be computed. */
  problem: string
  save: (scenario: Scenario) => Promise<void>
  remove: (id: number) => Promise<void>
}>()

const mm = computed(() => shownUnit('mm', props.family))
const kpa = computed(() => shownUnit('kpa', props.family))
const refusals = ref<Record<string, string>>({})
const name = ref('')
const saveSaid = ref('')

function set(changes: Partial<Scenario>) {
  draft.value = { ...draft.value, ...changes }
}

/** The slider runs over decades: 0 is clean, 1 ten times as resistant. */
const slide = computed(() => Math.log10(draft.value.loading ?? 1))
function onSlide(event: Event) {
  const loading = Number((10 ** Number((event.target as HTMLInputElement).value)).toPrecision(3))
  set({ loading: loading === 1 ? null : loading, loading_g: null })
}

/** The texts in the fields, by key: what was typed stays there while it is not understood. */
const texts = reactive<Record<string, string>>({})
const shownTexts = computed<Record<string, string>>(() => ({
  loading: draft.value.loading_g ? `${shown(draft.value.loading_g, 1)} g` : shown(draft.value.loading ?? 1, 1),
  stud_bore: shown(draft.value.stud_bore_mm, mm.value.factor),
  bypass_opening: shown(draft.value.bypass_opening_kpa, kpa.value.factor),
  anti_drain_lift: shown(draft.value.anti_drain_lift_mm, mm.value.factor),
  adapter_holes: holesText(draft.value.adapter_holes),
  leak: holesText(draft.value.leak),
}))
watch(
  shownTexts,
  (fresh, before) => {
    // what is being typed in another field is left alone
    for (const key of Object.keys(fresh)) if (!refusals.value[key] && fresh[key] !== before?.[key]) texts[key] = fresh[key]!
  },
  { immediate: true },
)

/** How many texts of each field were sent: an answer to an older one is no longer wanted. */
const sent: Record<string, number> = {}

/** Have what was typed understood by the server, in the family shown; what is refused changes nothing. */
async function onTyped(key: string) {
  if (!refusals.value[key] && texts[key] === shownTexts.value[key]) return
  const number = (sent[key] = (sent[key] ?? 0) + 1)
  try {
    const changes = await typedChanges(draft.value, key, texts[key] ?? '', props.family)
    if (number !== sent[key]) return
    refusals.value = { ...refusals.value, [key]: '' }
    set({ ...changes, ...(key === 'adapter_holes' ? { without_adapter: null } : {}) })
    texts[key] = shownTexts.value[key] ?? ''
  } catch (error) {
    if (number === sent[key]) refusals.value = { ...refusals.value, [key]: error instanceof Error ? error.message : String(error) }
  }
}

function shown(value: number | null | undefined, factor: number): string {
  return value == null ? '' : String(Number((value * factor).toPrecision(5)))
}

function holesText(holes: Schemas['RoundHoles'] | null | undefined): string {
  return holes ? `${holes.count} x ${significant(holes.diameter_mm * mm.value.factor, 3)}` : ''
}

function choose(id: string) {
  const stored = props.saved.find((item) => String(item.id) === id)
  if (stored) {
    draft.value = { ...stored.scenario }
    name.value = stored.scenario.name
  } else clear()
}

function clear() {
  draft.value = { name: 'what if' }
  name.value = ''
  refusals.value = {}
}

const chosen = computed(() => props.saved.find((item) => item.scenario.name === draft.value.name) ?? null)
watch(draft, () => (saveSaid.value = ''))

const options = (words: Readonly<Record<string, string>>) => Object.entries(words).map(([value, label]) => ({ value, label }))
const savedOptions = computed(() => [
  { value: '', label: isChanged(draft.value) ? 'not saved' : 'as it is' },
  ...props.saved.map((item) => ({ value: String(item.id), label: item.scenario.name })),
])
const gradeOptions = computed(() => [{ value: '', label: "the study's" }, ...props.grades.map((grade) => ({ value: grade, label: `${grade}, typical` }))])
const locationOptions = [{ value: '', label: 'as it is' }, ...options(terms('bypass_location'))]
const regulatorOptions = [{ value: '', label: 'works' }, ...options(terms('regulator_fault'))]

async function onSave() {
  saveSaid.value = ''
  const called = name.value.trim()
  if (!called) return void (saveSaid.value = 'Give it a name, then save it.')
  try {
    await props.save({ ...draft.value, name: called })
    set({ name: called })
  } catch (error) {
    saveSaid.value = error instanceof Error ? error.message : String(error)
  }
}

async function onRemove() {
  if (!chosen.value) return
  await props.remove(chosen.value.id)
  clear()
}
</script>

<template>
  <section class="panel what-if" aria-label="What if">
    <div class="top row">
      <h2 class="nowrap">What if</h2>
      <ChoiceField :model-value="String(chosen?.id ?? '')" :options="savedOptions" label="Saved scenarios" @update:model-value="choose" />
      <button class="tool" type="button" :disabled="!isChanged(draft)" @click="clear">As it is</button>
    </div>
    <p v-if="problem" class="said-wrong" role="alert">{{ problem }}</p>
    <div class="line small">
      <label for="wi-loading">media resistance</label>
      <span class="row">
        <input type="range" min="0" max="2" step="0.05" :value="slide" aria-label="Loading of the media, factor" @input="onSlide" />
        <input id="wi-loading" class="short" v-model="texts.loading" title="times the clean resistance, or dust such as 5 g" @change="onTyped('loading')" /> {{ draft.loading_g ? '' : '×' }}
      </span>
    </div>
    <div class="line small">
      <label for="wi-oil">another oil</label>
      <ChoiceField input-id="wi-oil" :model-value="draft.oil_grade ?? ''" :options="gradeOptions" label="Another oil" @update:model-value="set({ oil_grade: $event || null })" />
    </div>
    <div class="line small">
      <label for="wi-stud">stud bore, {{ mm.symbol }}</label>
      <input id="wi-stud" v-model="texts.stud_bore" inputmode="decimal" placeholder="the engine's" @change="onTyped('stud_bore')" />
    </div>
    <div class="line small">
      <label for="wi-adapter">adapter holes</label>
      <span class="row">
        <input id="wi-adapter" v-model="texts.adapter_holes" :disabled="!!draft.without_adapter" placeholder="as it is" @change="onTyped('adapter_holes')" />
        <label class="check"><input type="checkbox" :checked="!!draft.without_adapter" @change="set({ without_adapter: ($event.target as HTMLInputElement).checked || null, adapter_holes: null })" /> none</label>
      </span>
    </div>
    <div class="line small">
      <label for="wi-place">bypass location</label>
      <ChoiceField input-id="wi-place" :model-value="draft.bypass_location ?? ''" :options="locationOptions" label="Bypass location" @update:model-value="set({ bypass_location: ($event || null) as Scenario['bypass_location'] })" />
    </div>
    <div class="line small">
      <label for="wi-opening">bypass opens at, {{ kpa.symbol }}</label>
      <input id="wi-opening" v-model="texts.bypass_opening" inputmode="decimal" placeholder="as measured" @change="onTyped('bypass_opening')" />
    </div>
    <div class="line small">
      <label for="wi-leak">defects</label>
      <input id="wi-leak" v-model="texts.leak" placeholder="such as 6 x 0.4 mm" @change="onTyped('leak')" />
    </div>
    <div class="line small">
      <label for="wi-regulator">regulator</label>
      <ChoiceField input-id="wi-regulator" :model-value="draft.regulator ?? ''" :options="regulatorOptions" label="Regulator" @update:model-value="set({ regulator: ($event || null) as Scenario['regulator'] })" />
    </div>
    <div class="line small">
      <label for="wi-lift">anti-drainback lift, {{ mm.symbol }}</label>
      <input id="wi-lift" v-model="texts.anti_drain_lift" inputmode="decimal" placeholder="as measured, or left out" @change="onTyped('anti_drain_lift')" />
    </div>
    <p v-for="(words, key) in refusals" v-show="words" :key="key" class="said-wrong" role="alert">{{ words }}</p>
    <form class="save" @submit.prevent="onSave">
      <input v-model="name" aria-label="Name of the scenario" placeholder="name it" maxlength="80" />
      <button class="tool" type="submit" :disabled="!isChanged(draft)">Save</button>
      <button v-if="chosen" class="tool" type="button" @click="onRemove">Remove</button>
    </form>
    <p v-if="saveSaid" class="said-wrong" role="alert">{{ saveSaid }}</p>
    <p v-if="draft.regulator" class="soft fine">A stuck regulator can burst a filter: stop the engine and have it checked.</p>
  </section>
</template>

<style scoped>
.top {
  margin-bottom: 0.3rem;
}
.line {
  display: grid;
  grid-template-columns: 9.4rem minmax(0, 1fr);
  align-items: center;
  padding: 0.12rem 0;
}
input:not([type='range'], [type='checkbox']),
select {
  width: 100%;
}
.short {
  max-width: 4.4rem;
  text-align: right;
}
input[type='range'] {
  accent-color: var(--hand);
  flex: 1;
}
.check {
  display: inline-flex;
  gap: 0.25rem;
  align-items: center;
}
.save {
  display: flex;
  gap: 0.4rem;
  margin-top: 0.4rem;
}
</style>
