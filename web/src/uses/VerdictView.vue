<script setup lang="ts">
/** Which filter for which use: every use against every filter, the ranking methods side by side, what a use asks. */
import { computed, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { catalogue, details, observations, quantities } from '@/catalogue/catalogue'
import ComparisonPages from '@/comparison/ComparisonPages.vue'
import SwitchButtons from '@/shared/SwitchButtons.vue'
import { usePreferences } from '@/shared/preferences'
import { useRefusal } from '@/shared/useRefusal'
import { useSheet } from '@/sample/useSheet'
import { stationOfKey } from '@/sample/stations'
import AddChoice from './AddChoice.vue'
import AnswerPanel from './AnswerPanel.vue'
import ComparedSwitch from './ComparedSwitch.vue'
import FilterVerdict from './FilterVerdict.vue'
import RankingPanel from './RankingPanel.vue'
import UseGrid from './UseGrid.vue'
import UseSetup from './UseSetup.vue'
import { usePreferred } from './usePreferred'
import { useJudged, useTrial, type Compared, type Trial } from './useJudged'
import { useUses, type Use } from './useUses'

const props = defineProps<{ studyId: number; sampleId: number }>()
const router = useRouter()
const studyId = toRef(props, 'studyId')
const sheet = useSheet(toRef(props, 'sampleId'))
const uses = useUses(studyId)
const preferred = usePreferred()
const stored = computed(() => uses.query.data.value?.uses ?? [])
const { refused, guarded } = useRefusal()

const filters = computed(() => uses.query.data.value?.filters ?? [])
const labels = computed(() => filters.value.map((filter) => filter.label))
const compared = ref<Compared>('part_numbers')
const anyWeights = ref(false)
const asked = computed(() => ({ compared: compared.value, any_weights: anyWeights.value }))
const sampleIds = computed(() => filters.value.map((filter) => filter.sample_id))
const chosenUse = ref<number | null>(null)
const { ofUse, progress, isStopped } = useJudged(studyId, sampleIds, stored, asked, chosenUse)
const chosenLabel = ref<string | null>(null)
const use = computed(() => stored.value.find((item) => item.id === chosenUse.value) ?? stored.value[0])
const result = computed(() => (use.value ? ofUse.value.get(use.value.id) : undefined))
const isOfUse = computed(() => result.value?.data?.use_id === use.value?.id)
const judged = computed(() => (isOfUse.value ? result.value?.data : undefined))
const colours = computed(() => new Map(filters.value.map((filter) => [filter.label, filter.rack_place])))

const trial = ref<Trial | null>(null)
const settled = refDebounced(trial, 120)
const thought = useTrial(studyId, () => use.value?.id ?? 0, asked, settled)
watch([() => use.value?.id, stored], () => (trial.value = null))
const shownJudged = computed(() => (trial.value && thought.data.value?.use_id === use.value?.id ? thought.data.value : judged.value))

const page = ref<'answer' | 'ranking' | 'reasons' | 'setup'>('answer')
const preferences = usePreferences()
/** The answer is asked for once the use is judged: what it rests on is computed by then, filter by filter. */
const answer = useQuery({
  queryKey: computed(() => queryKeys.answer(props.studyId, use.value?.id, { compared: compared.value, family: preferences.family })),
  queryFn: ({ signal }) =>
    unwrap(
      client.GET('/api/studies/{study_id}/uses/{use_id}/answer', {
        params: { path: { study_id: props.studyId, use_id: use.value!.id }, query: { compared: compared.value, family: preferences.family } },
        signal,
      }),
    ),
  enabled: () => page.value === 'answer' && judged.value !== undefined && !result.value?.isFetching,
  retry: false,
})
const answered = computed(() => (answer.data.value?.use_id === use.value?.id ? answer.data.value?.answer : undefined))
/** A study that ranks nothing may ask about the engine's adapter: it is answered by a run with it and without. */
const adapter = useQuery({
  queryKey: computed(() => queryKeys.adapter(props.studyId, preferences.family)),
  queryFn: () => unwrap(client.GET('/api/studies/{study_id}/adapter', { params: { path: { study_id: props.studyId }, query: { family: preferences.family } } })),
  enabled: () => uses.query.isSuccess.value && !stored.value.length,
})
const PAGES = [
  { label: 'Answer', value: 'answer' },
  { label: 'Ranking', value: 'ranking' },
  { label: 'Requirements', value: 'reasons' },
  { label: 'What it asks', value: 'setup' },
] as const
/** Filter whose requirements are shown: the chosen one, else the first. */
const shownLabel = computed(() => {
  const labels = judged.value?.labels ?? []
  return labels.find((label) => label === chosenLabel.value) ?? labels[0] ?? null
})

function choose(useId: number, label: string | null) {
  chosenUse.value = useId
  if (label) {
    chosenLabel.value = label
    page.value = 'reasons'
  }
}

const presetOptions = computed(() => [
  { value: '', label: 'add a use …' },
  ...(uses.query.data.value?.presets ?? []).map((item) => ({ value: item.name, label: `${item.name}: ${item.about}` })),
])
async function begin(preset: string) {
  await guarded(async () => {
    chosenUse.value = await uses.begin(preset)
    page.value = 'setup'
  })
}
/** Of the use that is shown as this is asked for: another one may be chosen before a typed number is understood. */
const change = computed(() => {
  const id = use.value?.id ?? 0
  return (changed: (now: Use) => Use) => uses.change(id, changed)
})

function keep({ criterion, weight }: Trial) {
  void guarded(() => change.value((now) => ({ ...now, criteria: (now.criteria ?? []).map((item, i) => (i === criterion ? { ...item, weight } : item)) })))
}
async function remove() {
  if (use.value) await guarded(() => uses.remove(use.value!.id))
}

const resultNamed = (key: string) => catalogue().results.find((row) => row.key === key)
function titleOf(key: string): string | null {
  return details().get(key)?.title ?? quantities().get(key)?.title ?? observations().get(key)?.title ?? resultNamed(key)?.title ?? null
}
/** To the field, of the filter that is judged, that would decide a line. */
function goTo(key: string) {
  const sampleId = filters.value.find((filter) => filter.label === shownLabel.value)?.sample_id ?? props.sampleId
  const result = resultNamed(key)
  const params = { studyId: props.studyId, sampleId }
  if (result) void router.push({ name: 'working', params: { ...params, result: result.name } })
  else void router.push({ name: stationOfKey(key, sheet.data.value), params, query: { field: key } })
}
</script>

<template>
  <div class="comparison-page view">
    <header class="head">
      <ComparisonPages />
      <ComparedSwitch v-model="compared" />
    </header>
    <p v-if="uses.query.error.value" class="said-wrong">{{ uses.query.error.value.message }}</p>
    <template v-else-if="uses.query.data.value">
      <div class="uses wrap">
        <div v-if="!stored.length" class="none">
          <p v-for="text in adapter.data.value" :key="text" class="strong" data-part="adapter">{{ text }}</p>
          <p>
            Which filter, for what? A use says where the engine runs, what counts and how much, and what a filter must do. Begin one of these and change it; what you type is kept with the study.
          </p>
          <p v-for="preset in uses.query.data.value.presets" :key="preset.name">
            <button type="button" class="tool" :aria-label="`Begin the use ${preset.name}`" @click="begin(preset.name)">{{ preset.name }}</button> {{ preset.about }}
          </p>
        </div>
        <UseGrid v-else :uses="stored" :labels="labels" :of-use="ofUse" :progress="progress" :colours="colours" :chosen-use="use?.id ?? null" :chosen-label="page === 'reasons' ? shownLabel : null" @choose="choose" />
        <div class="acts">
          <AddChoice v-if="stored.length" :options="presetOptions" label="Add a use" @add="begin" />
          <button v-if="progress.size" type="button" class="tool" @click="isStopped = true">stop</button>
          <RouterLink :to="{ name: 'preferences' }">own preferences</RouterLink>
          <button v-if="isStopped" type="button" class="tool" @click="isStopped = false">go on computing</button>
        </div>
        <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
      </div>
      <section v-if="use" class="one stack fills" :aria-label="`Use ${use.use.name}`">
        <div class="bar row wrap">
          <h2>{{ use.use.name }}</h2>
          <span v-if="judged && (result?.isFetching || (page === 'answer' && answered && answer.isFetching.value))" class="soft" role="status">being judged anew: what is shown is from before</span>
          <SwitchButtons v-model="page" :options="PAGES" label="What of the use is shown" small />
          <button type="button" class="tool" @click="remove">remove this use</button>
        </div>
        <div class="scroll fills scrolls" tabindex="0" role="region" :aria-label="`Use ${use.use.name}, in detail`">
          <UseSetup v-if="page === 'setup'" :key="use.id" :stored="use" :measures="uses.query.data.value.measures" :labels="labels" :tiers="uses.query.data.value.tiers" :shops="uses.query.data.value.shops" :preferred="preferred.data.value ?? []" :judged="judged" :change="change" />
          <p v-else-if="result?.error && !judged" class="said-wrong">{{ result.error.message }}</p>
          <p v-else-if="result?.error" class="said-wrong">{{ result.error.message }} What is shown is from before.</p>
          <p v-else-if="!shownJudged" class="soft">{{ isStopped ? 'Stopped.' : 'Computing what the filters do at the points of this use …' }}</p>
          <template v-else-if="page === 'answer'">
            <p v-if="answer.error.value" class="said-wrong" role="alert">{{ answer.error.value.message }}</p>
            <AnswerPanel v-else-if="answered" :answer="answered" :study-id="studyId" />
            <p v-else class="soft" role="status">Putting the answer in sentences …</p>
          </template>
          <template v-if="shownJudged && (page === 'ranking' || page === 'reasons')">
            <p v-if="page === 'ranking' && !shownJudged.criteria.length" class="soft">Nothing is ranked: this use has no criterion yet. “What it asks” adds some.</p>
            <RankingPanel v-else-if="page === 'ranking'" v-model:trial="trial" v-model:any-weights="anyWeights" :judged="shownJudged" :colours="colours" :trial-error="thought.error.value?.message ?? ''" @keep="keep" />
            <FilterVerdict v-else-if="judged && shownLabel" :label="shownLabel" :verdict="judged.verdicts[shownLabel]!" :lines="judged.requirements[shownLabel]!" :use="use.use" :title-of="titleOf" :change="change" @field="goTo" />
          </template>
        </div>
      </section>
    </template>
    <p v-else class="soft">Reading the uses …</p>
  </div>
</template>

<style scoped>
.uses {
  align-items: flex-end;
  gap: 1rem;
}
.none {
  max-width: 46rem;
}
.none .tool {
  min-width: 7.5rem;
  margin-right: 0.6rem;
}
.acts {
  display: flex;
  gap: 0.5rem;
  max-width: 20rem;
}
.one {
  border-top: 1px solid var(--line-strong);
  padding-top: 0.4rem;
}
.bar {
  gap: 1rem;
  margin-bottom: 0.4rem;
}
.bar h2 {
  font-size: 1.05rem;
  margin: 0;
}
.bar .tool {
  margin-left: auto;
}
</style>
