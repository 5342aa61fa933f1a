<script setup lang="ts">
/** One study in the list: its cans, the five results of each, what is missing, the last change; what can be done with it. */
import { useIntersectionObserver } from '@vueuse/core'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, useTemplateRef } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { catalogue } from '@/catalogue/catalogue'
import { headlines, type Headline } from '@/results/headlines'
import { clock } from '@/shared/clock'
import { usePreferences } from '@/shared/preferences'
import { sampleColour } from '@/shared/sampleColours'
import SampleCan from '@/figures/SampleCan.vue'

type Status = Schemas['StatusIn']['status']

const props = defineProps<{ study: Schemas['StudyRowOut'] }>()
defineEmits<{
  open: []
  copy: []
  status: [status: Status]
  sampleStatus: [sample: Schemas['SampleNameOut'], status: Status]
}>()

const preferences = usePreferences()
const card = useTemplateRef<HTMLElement>('card')
const seen = ref(false)
/** Results are computed for what somebody looks at. */
useIntersectionObserver(card, ([entry]) => (seen.value ||= entry?.isIntersecting ?? false), { rootMargin: '200px' })
const isThere = computed(() => props.study.status !== 'deleted')
const known = useQuery({
  queryKey: queryKeys.studyResults(props.study.id),
  queryFn: () => unwrap(client.GET('/api/studies/{study_id}/results', { params: { path: { study_id: props.study.id } } })),
  enabled: computed(() => seen.value && isThere.value && props.study.samples.length > 0),
})

/** Where the study is opened; one without a sample gets one first. */
const first = computed(() => props.study.samples.find((sample) => sample.status === 'in_use') ?? props.study.samples.find((sample) => sample.status === 'archived'))
const to = (sampleId: number) => ({ name: 'outside', params: { studyId: props.study.id, sampleId } })

const CAN_PX = 34
const scale = computed(() => CAN_PX / Math.max(90, ...(known.data.value ?? []).map((item) => item.can_height_mm ?? 0)))
const columns = computed(() => catalogue().results.filter((result) => result.is_headline))
const rows = computed(() =>
  props.study.samples
    .filter((sample) => sample.status !== 'deleted')
    .map((sample, i) => ({ sample, colour: sampleColour(i), summary: known.data.value?.find((item) => item.sample_id === sample.id) }))
    .filter(({ sample }) => sample.status === 'in_use')
    .map((row) => ({ ...row, results: row.summary ? headlines(row.summary.results, preferences.family) : [], state: stateOf(row.summary) })),
)
const units = computed(() => new Map(rows.value.flatMap((row) => row.results.map((result) => [result.key, result.unit]))))
const away = computed(() => props.study.samples.filter((sample) => sample.status !== 'in_use'))

/** Reasons why results are incomplete. */
function stateOf(summary: Schemas['SampleSummaryOut'] | undefined): string {
  if (!summary) return ''
  const parts = [
    summary.needs.length ? `needs ${summary.needs.slice(0, 2).join(', ')}${summary.needs.length > 2 ? ` and ${summary.needs.length - 2} more` : ''}` : 'all is there',
    summary.copied_count ? `${summary.copied_count} copied` : '',
    summary.warning_count ? `${summary.warning_count} ${summary.warning_count === 1 ? 'warning' : 'warnings'}` : '',
  ]
  return parts.filter(Boolean).join('; ')
}

/** Whether a number rests on something that nobody measured or stated for this filter. */
const isAssumed = (result: Headline | undefined) => Boolean(result?.complete && result.assumed.length)

function cell(result: Headline | undefined): string {
  if (!result) return ''
  return result.complete ? result.text : '–'
}
</script>

<template>
  <li ref="card" class="card" :data-study="study.id">
    <header>
      <h2>
        <RouterLink v-if="isThere && first" class="open bare" :to="to(first.id)">{{ study.name }}</RouterLink>
        <button v-else-if="isThere" type="button" class="open bare" @click="$emit('open')">{{ study.name }}</button>
        <template v-else>{{ study.name }}</template>
      </h2>
      <p v-if="study.question" class="question">{{ study.question }}</p>
      <p class="soft facts small">
        {{ study.sample_count }} {{ study.sample_count === 1 ? 'sample' : 'samples' }}, {{ study.reading_count }} readings;
        <template v-if="study.cut_count === study.sample_count">all cut open</template>
        <template v-else>{{ study.sample_count - study.cut_count }} still whole</template>; last change {{ clock(study.changed_at) }}
      </p>
      <div class="acts row wrap small" role="group" :aria-label="`What can be done with ${study.name}`">
        <template v-if="isThere">
          <button type="button" @click="$emit('copy')">Copy</button>
          <a :href="`/api/studies/${study.id}/document`" :download="`${study.name}.study.json`">Export document</a>
          <a
            :href="`/api/studies/${study.id}/document?history=true&library=true`"
            :download="`${study.name}, whole.study.json`"
            title="With every change, so that undo goes on where it is imported, and with saved engines, templates and rules of date codes"
            >Export with history</a
          >
        </template>
        <button v-if="study.status === 'in_use'" type="button" @click="$emit('status', 'archived')">Archive</button>
        <button v-else type="button" @click="$emit('status', 'in_use')">Put back</button>
        <button v-if="isThere" type="button" @click="$emit('status', 'deleted')">Delete</button>
      </div>
    </header>
    <div v-if="rows.length && isThere" class="scroller" tabindex="0" role="region" :aria-label="`Samples of ${study.name}`">
      <table class="wide small">
        <thead>
          <tr>
            <th scope="col">Sample</th>
            <th v-for="column in columns" :key="column.key" scope="col" class="number">
              {{ column.title }}<span v-if="units.get(column.key)" class="soft">, {{ units.get(column.key) }}</span>
            </th>
            <th scope="col">What is missing</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.sample.id" :data-sample="row.sample.id">
            <th scope="row">
              <span class="who">
              <span class="can"><SampleCan v-if="row.summary" :height-mm="row.summary.can_height_mm" :diameter-mm="row.summary.can_diameter_mm" :colour="row.colour" :scale="scale" /></span>
              <span class="tag stack">
                <RouterLink class="open bare" :to="to(row.sample.id)">{{ row.sample.label }}</RouterLink>
                <span class="soft">{{ row.sample.part_number ?? 'no part number' }}</span>
              </span>
              </span>
            </th>
            <td v-for="column in columns" :key="column.key" class="number">
              <template v-if="row.summary">
                {{ cell(row.results.find((result) => result.key === column.key)) }}
                <span v-if="isAssumed(row.results.find((result) => result.key === column.key))" class="soft mark fine" title="something it rests on is assumed">assumed</span>
              </template>
              <span v-else class="soft">…</span>
            </td>
            <td class="state soft">{{ row.state }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="away.length && isThere" class="away soft wrap small">
      <span v-for="sample in away" :key="sample.id">
        {{ sample.label }} is {{ sample.status }}
        <button type="button" @click="$emit('sampleStatus', sample, 'in_use')">Put {{ sample.label }} back</button>
      </span>
    </p>
  </li>
</template>

<style scoped>
.card {
  border-left: 6px solid var(--amber);
  padding: 0.7rem 1rem 0.8rem;
}
header {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  column-gap: 1rem;
  align-items: baseline;
}
h2 {
  font-size: 1.15rem;
}
header p {
  grid-column: 1;
  margin: 0.1rem 0 0;
}
.question {
  font-style: italic;
}
.acts {
  grid-column: 2;
  grid-row: 1 / 3;
}
.acts :is(button, a),
.away button {
  border: 1px solid var(--line-strong);
  border-radius: 7px;
  background: var(--paper);
  padding: 0.2rem 0.6rem;
  cursor: pointer;
  text-decoration: none;
  color: inherit;
}
.open {
  padding: 0.1rem 0;
  color: var(--hand);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.scroller {
  overflow-x: auto;
  margin-top: 0.5rem;
}
th,
td {
  padding: 0.2rem 0.6rem 0.2rem 0;
  border-top: 1px solid var(--line);
  vertical-align: middle;
}
thead th {
  white-space: normal;
  border-top: 0;
  font-size: var(--fine);
  vertical-align: bottom;
  line-height: 1.2;
}
thead th:last-child {
  padding-left: 0.6rem;
}
thead .number {
  width: 7.5rem;
}
.who {
  display: flex;
  gap: 0.6rem;
  align-items: flex-end;
  font-weight: 500;
}
.can {
  width: 34px;
  min-height: 34px;
  align-items: flex-end;
  display: flex;
  justify-content: center;
}
.tag {
  line-height: 1.2;
}
.tag .soft,
.state {
  font-size: var(--fine);
  font-weight: 400;
}
.mark {
  display: block;
  line-height: 1;
}
.state {
  padding-left: 0.6rem;
  max-width: 15rem;
}
.away {
  gap: 0.3rem 1.2rem;
  margin: 0.5rem 0 0;
}
/* the efficiency may be a sentence: it takes several lines and leaves the other columns their room */
td.number:nth-child(6) {
  white-space: normal;
  min-width: 15rem;
  line-height: 1.25;
}
</style>
