<script setup lang="ts">
/** The working of a result: formula, numbers put in, result, line by line; each number leads to where it was entered. */
import { computed, toRef } from 'vue'
import { useRouter } from 'vue-router'
import { useKeys } from '@/shared/useKeys'
import { useFieldTitles, useSheet } from '@/sample/useSheet'
import BudgetTable from './BudgetTable.vue'
import { useWorking } from './useWorking'
import { fieldOf, inputName } from '@/catalogue/inputs'
import { stationOfKey } from '@/sample/stations'
import { catalogue, term } from '@/catalogue/catalogue'
import { ProblemError } from '@/api/client'
import { usePreferences } from '@/shared/preferences'

const props = defineProps<{ sampleId: number; result: string }>()
const router = useRouter()
const preferences = usePreferences()
const sheet = useSheet(toRef(props, 'sampleId'))
const working = useWorking(toRef(props, 'sampleId'), toRef(props, 'result'), () => sheet.data.value)
const titles = useFieldTitles(sheet.data)

const results = catalogue().results.filter((result) => result.has_working)

const lines = computed(() =>
  (working.data.value?.steps ?? []).map((step) => ({
    ...step,
    value: preferences.family === 'metric' ? step.metric : step.inch,
    pieces: step.pieces.map((piece) => ({ ...piece, shown: (preferences.family === 'metric' ? piece.metric : piece.inch) ?? piece.text })),
  })),
)
const missing = computed(() => {
  const error = working.error.value
  return error instanceof ProblemError ? error.missing : []
})

function keyOf(key: string): string | null {
  if (/^(sample|engine|study)\.|^claims$/.test(key)) return key
  return fieldOf(key, titles.value)
}

function go(key: string) {
  const field = keyOf(key)
  if (field) void router.push({ name: stationOfKey(field, sheet.data.value), query: { field } })
}

function show(name: string) {
  void router.replace({ name: 'working', params: { ...router.currentRoute.value.params, result: name } })
}

function step(by: number) {
  const place = results.findIndex((result) => result.name === props.result)
  show(results[(place + by + results.length) % results.length]!.name)
}

function print() {
  window.print()
}

useKeys([
  { keys: '← →', does: 'the working of another result', matches: (event) => event.key === 'ArrowRight', run: () => step(1) },
  { keys: '←', does: 'the one before', matches: (event) => event.key === 'ArrowLeft', run: () => step(-1) },
  { keys: 'Esc', does: 'back', matches: (event) => event.key === 'Escape', run: () => router.back() },
  { keys: 'p', does: 'print this working', words: ['print', 'paper', 'pdf'], matches: (event) => event.key === 'p' && !event.ctrlKey && !event.metaKey, run: print, single: true },
])
</script>

<template>
  <div class="working">
    <nav class="scrolls" aria-label="Workings">
      <button
        v-for="item in results"
        :key="item.name"
        type="button"
        :class="{ current: item.name === result }"
        :aria-current="item.name === result ? 'true' : undefined"
        @click="show(item.name)"
      >
        {{ item.title }}
      </button>
    </nav>
    <article class="scrolls">
      <header class="spread">
        <h1>
          {{ working.data.value?.title ?? results.find((item) => item.name === result)?.title }}
          <span class="soft">{{ sheet.data.value?.label }}</span>
        </h1>
        <button type="button" class="print" @click="print">Print</button>
      </header>
      <template v-if="working.error.value">
        <p v-if="!missing.length" class="said-wrong">{{ working.error.value.message }}</p>
        <p v-else class="said-wrong">This result cannot be worked out yet. It needs:</p>
        <ul>
          <li v-for="key in missing" :key="key">
            <button v-if="keyOf(key)" type="button" class="number-link" @click="go(key)">{{ inputName(key, titles) }}</button>
            <template v-else>{{ inputName(key, titles) }}</template>
          </li>
        </ul>
      </template>
      <table v-else class="wide">
        <tbody>
          <template v-for="(line, i) in lines" :key="i">
            <tr class="words">
              <td colspan="3">{{ line.words }}</td>
            </tr>
            <tr :class="{ last: i === lines.length - 1 }">
              <td class="symbol strong">{{ line.symbol }}</td>
              <td class="formula">
                <span class="eq small typed-face">= {{ line.formula }}</span>
                <span class="eq small typed-face">
                  =
                  <template v-for="(piece, k) in line.pieces" :key="k">
                    <button
                      v-if="piece.key && keyOf(piece.key)"
                      type="button"
                      class="number-link"
                      :class="piece.provenance"
                      :title="`${piece.words}, ${term('provenance', piece.provenance ?? '') ?? ''}: go to it`"
                      @click="go(piece.key)"
                    >
                      {{ piece.shown }}</button
                    ><span v-else :class="piece.provenance" :title="piece.words ?? undefined">{{ piece.shown }}</span>
                  </template>
                </span>
              </td>
              <td class="number value">{{ line.value }}</td>
            </tr>
          </template>
        </tbody>
      </table>
      <BudgetTable v-if="working.data.value" :budget="working.data.value.budget" :without="working.data.value.without_budget" :family="preferences.family" :field-of="keyOf" @go="go" />
      <p class="soft legend fine">
        Underlined numbers lead to where they were entered; dotted ones are assumed, dashed ones published or by eye. ±
        is expanded to 95 %. Numbers are shown rounded and computed unrounded.
      </p>
    </article>
  </div>
</template>

<style scoped>
.working {
  height: 100%;
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr);
}
nav {
  border-right: 1px solid var(--line);
  padding: 0.7rem 0.4rem;
}
nav button {
  display: block;
  width: 100%;
  text-align: left;
  border: 0;
  border-radius: 6px;
  background: none;
  padding: 0.35rem 0.5rem;
}
nav button.current {
  background: var(--hand-wash);
  color: var(--hand);
  font-weight: 600;
}
article {
  max-width: 62rem;
  padding: 0.8rem 1.4rem 2rem;
}
header {
  display: flex;
  align-items: baseline;
}
h1 span {
  font-weight: 400;
  font-size: 1rem;
  margin-left: 0.5rem;
}
.print {
  border: 1px solid var(--line-strong);
  background: none;
  border-radius: 6px;
  padding: 0.2rem 0.8rem;
}
table {
  margin-top: 0.5rem;
}
.words td {
  padding: 0.55rem 0 0;
  color: var(--ink-soft);
  font-size: var(--small);
}
.words td::first-letter {
  text-transform: uppercase;
}
tr:not(.words) td {
  border-bottom: 1px solid var(--line);
  padding: 0.1rem 0 0.4rem;
  vertical-align: baseline;
}
.symbol {
  width: 3.2rem;
  font-family: var(--head);
  font-size: 1.05rem;
}
.eq {
  display: block;
  line-height: 1.7;
}
.value {
  width: 13rem;
  font-size: 1.05rem;
  vertical-align: bottom !important;
}
.last .value {
  font-weight: 650;
  font-size: 1.2rem;
}
.assumed {
  text-decoration: underline dotted;
}
.published,
.by_eye {
  text-decoration: underline dashed;
}
@media print {
  .working {
    display: block;
  }
  nav,
  .print {
    display: none;
  }
}
</style>
