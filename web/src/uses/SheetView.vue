<script setup lang="ts">
/** Everything known of the filters on one sheet, against the reference part; rows chosen and sorted, printed, saved. */
import { computed, ref, toRef } from 'vue'
import { useRouter } from 'vue-router'
import { details, observations, quantities } from '@/catalogue/catalogue'
import ComparisonPages from '@/comparison/ComparisonPages.vue'
import OtherSamples from '@/comparison/OtherSamples.vue'
import { useOtherSamples } from '@/comparison/useOtherSamples'
import ChoiceField from '@/shared/ChoiceField.vue'
import SwitchButtons from '@/shared/SwitchButtons.vue'
import { copyText } from '@/shared/clipboard'
import { csv, saveText, tsv } from '@/shared/download'
import { inUnit } from '@/catalogue/units'
import { usePreferences } from '@/shared/preferences'
import { useActions } from '@/shared/actions'
import { useSheet } from '@/sample/useSheet'
import { stationOfKey } from '@/sample/stations'
import ComparedSwitch from './ComparedSwitch.vue'
import SheetTable from './SheetTable.vue'
import { cellWords, differenceUnit, outsideWords, shownRows, type Kept, type Order, type Row, type Sheet } from './sheetRows'
import { usePercentiles } from './usePercentiles'
import { useFilterSheet } from './useFilterSheet'
import type { Compared } from './useJudged'
import { useUses } from './useUses'

const props = defineProps<{ studyId: number; sampleId: number }>()
const router = useRouter()
const preferences = usePreferences()
const studyId = toRef(props, 'studyId')
const bench = useSheet(toRef(props, 'sampleId'))
const uses = useUses(studyId)

const compared = ref<Compared>('part_numbers')
/** Empty until one is chosen: the first use of the study; `none` for none. */
const chosenUse = ref('')
const stored = computed(() => uses.query.data.value?.uses ?? [])
const useId = computed(() => {
  if (chosenUse.value === 'none') return null
  return (stored.value.find((item) => String(item.id) === chosenUse.value) ?? stored.value[0])?.id ?? null
})
const useOptions = computed(() => [...stored.value.map((item) => ({ value: String(item.id), label: `use: ${item.use.name}` })), { value: 'none', label: 'no use, no behaviour' }])
const shownUse = computed({ get: () => (useId.value === null ? 'none' : String(useId.value)), set: (value) => (chosenUse.value = value) })

const { otherSamples, ...others } = useOtherSamples(studyId)
const adding = ref(false)

const asked = computed(() => ({ compared: compared.value, use_id: useId.value, others: otherSamples.value }))
const sampleIds = computed(() => (uses.query.data.value?.filters ?? []).map((item) => item.sample_id))
const { sheet, error, progress, isStopped } = useFilterSheet(studyId, sampleIds, asked)

/** The filter in hand among all that was measured. */
const percentiles = usePercentiles(toRef(props, 'sampleId'))
const outside = computed(() => percentiles.data.value?.places.filter((place) => place.is_outside) ?? [])
const isFewerOutside = ref(true)
const shownOutside = computed(() => (isFewerOutside.value ? outside.value.slice(0, 1) : outside.value))

const kept = ref<Kept>('all')
const KEPT = [
  { label: 'All', value: 'all' },
  { label: 'What differs', value: 'differs' },
  { label: 'What matters here', value: 'matters' },
] as const
const order = ref<Order>('bench')
const ORDERS = [
  { value: 'bench', label: 'bench order' },
  { value: 'difference', label: 'largest difference' },
  { value: 'name', label: 'by name' },
]
const orderName = computed({ get: (): string => order.value, set: (value) => (order.value = value as Order) })
const words = ref('')
const by = ref<string | null>(null)
const rows = computed(() => shownRows(sheet.value?.rows ?? [], { kept: kept.value, words: words.value, order: order.value }))
const warned = computed(() => sheet.value?.columns.filter((column) => column.other_conditions.length) ?? [])

function open(row: Row, column: Sheet['columns'][number]) {
  if (column.other_study !== null) return
  const params = { studyId: props.studyId, sampleId: column.sample_id }
  if (row.working) return void router.push({ name: 'working', params: { ...params, result: row.working } })
  const isField = details().has(row.key) || quantities().has(row.key) || observations().has(row.key)
  if (isField) void router.push({ name: stationOfKey(row.key, bench.data.value), params, query: { field: row.key } })
  else if (row.key === 'claims' || row.key === 'price') void router.push({ name: 'intake', params })
  else void router.push({ name: 'map', params })
}

function table(shown: Sheet): string {
  const { family } = preferences
  const head = ['group', 'row', 'unit', ...shown.columns.flatMap(({ label }) => [label, `${label}, U`, `${label}, basis`, `${label}, difference to the reference`])]
  const lines = rows.value.map((row) => [
    row.group,
    row.title,
    row[family].symbol,
    ...row.cells.flatMap((cell) => [
      row.is_number && cell.value !== null ? inUnit(cell.value, row[family]) : cellWords(row, cell, family),
      row.is_number && cell.expanded_uncertainty !== null ? cell.expanded_uncertainty * row[family].factor : null,
      cell.basis,
      cell.difference === null ? null : `${(cell.difference * differenceUnit(row, family).factor).toPrecision(3)} ${differenceUnit(row, family).symbol}`,
    ]),
  ])
  return csv([head, ...lines])
}
const copied = ref('')
const caption = computed(() => `Comparison sheet of ${compared.value === 'specimens' ? 'these specimens' : 'part numbers'}: value ± U (95 %). Behaviour is a model, not a test.`)
async function copy() {
  if (!sheet.value) return
  try {
    await copyText(tsv(table(sheet.value), caption.value))
    copied.value = 'copied'
  } catch {
    copied.value = 'save it as CSV instead'
  }
}
const save = () => sheet.value && saveText(table(sheet.value), 'comparison sheet.csv')
const print = () => window.print()
useActions(() => [
  { title: 'Copy the comparison sheet', words: ['clipboard', 'share', 'table', 'numbers'], run: () => void copy() },
  { title: 'Save the comparison sheet as CSV', words: ['export', 'download', 'numbers', 'csv'], run: save },
  { title: 'Print the comparison sheet', words: ['paper', 'pdf', 'a4'], run: print },
])
</script>

<template>
  <div class="comparison-page view">
    <header class="head">
      <ComparisonPages />
      <ComparedSwitch v-model="compared" />
    </header>
    <h2 class="printed">Comparison sheet, {{ sheet?.study_name }}{{ useId === null ? '' : ` · ${useOptions.find((option) => option.value === shownUse)?.label}` }}</h2>
    <div class="tools row wrap small">
      <ChoiceField v-model="shownUse" :options="useOptions" label="Use whose points and criteria count" />
      <SwitchButtons v-model="kept" :options="KEPT" label="Rows" small />
      <ChoiceField v-model="orderName" :options="ORDERS" label="Order of the rows" />
      <input v-model="words" type="search" placeholder="find a row" aria-label="Find a row" />
      <button type="button" class="tool" :aria-expanded="adding" @click="adding = !adding">other studies …</button>
      <button type="button" class="tool" @click="save">CSV</button>
      <button type="button" class="tool" data-copy="sheet" @click="copy">{{ copied || 'copy' }}</button>
      <button type="button" class="tool" @click="print">Print</button>
      <span v-if="percentiles.data.value?.remaining" class="soft" role="status">{{ percentiles.data.value.remaining }} samples of this database still to be looked through</span>
      <span v-if="progress" class="soft" role="status">behaviour with its uncertainty: {{ progress.done }} of {{ progress.of }} filters <button type="button" class="tool" @click="isStopped = true">stop</button></span>
      <button v-else-if="isStopped" type="button" class="tool" @click="isStopped = false">compute its uncertainty</button>
    </div>
    <OtherSamples v-if="adding" :study-id="studyId" :taken="otherSamples" @add="others.add" />
    <p v-for="item in warned" :key="item.sample_id" class="warning small flush" role="alert">
      {{ item.label }} was measured for another {{ item.other_conditions.join(' and ') }}: what it does here is computed with this study's.
    </p>
    <p v-if="sheet && !sheet.columns.some((column) => column.is_reference)" class="soft note small flush" data-part="no-reference">
      There is no reference part among these filters: name one at <RouterLink :to="{ name: 'intake', query: { field: 'study.reference' } }">intake</RouterLink>, and every difference to it stands here.
    </p>
    <p v-for="item in shownOutside" :key="item.measure" class="warning small flush" data-part="outside">
      {{ outsideWords(item, percentiles.data.value!.label, preferences.family) }}
      <button v-if="isFewerOutside && outside.length > 1" type="button" class="tool" @click="isFewerOutside = false">and {{ outside.length - 1 }} more</button>
    </p>
    <p v-if="error" class="said-wrong" role="alert">
      {{ error.message }} <button v-if="otherSamples.length" type="button" class="tool" @click="others.clear">remove the samples of other studies</button>
    </p>
    <p v-if="!sheet && !error" class="soft">Gathering what is known …</p>
    <div v-else-if="sheet" class="scroll fills scrolls" tabindex="0" role="region" aria-label="Comparison sheet">
      <p v-if="!rows.length" class="soft">{{ !sheet.rows.length ? 'Nothing is known of the filters yet: measure one, then it stands here.' : kept === 'matters' ? 'No row is asked for by this use: choose another use, or all rows.' : 'No row has that in its name.' }}</p>
      <SheetTable v-else v-model:by="by" :columns="sheet.columns" :rows="rows" :family="preferences.family" :grouped="order === 'bench'" :is-rough="!sheet.has_uncertainty_of_behaviour" :percentiles="percentiles.data.value" @open="open" @remove="others.remove" />
    </div>
  </div>
</template>

<style scoped>
.tools {
  gap: 0.4rem 0.8rem;
}
.tools input {
  width: 8rem;
}
.warning {
  border-left: 3px solid var(--rust);
  padding-left: 0.5rem;
}
.printed {
  display: none;
}
@media print {
  .printed {
    display: block;
    font-size: 11pt;
  }
  .view {
    page: comparison-sheet;
    display: block;
    height: auto;
  }
  .tools,
  .head > :deep(:not(.heading)) {
    display: none;
  }
  .scroll {
    overflow: visible;
  }
}
</style>
<style>
/* a page of its own: others print upright */
@page comparison-sheet {
  size: A4 landscape;
  margin: 10mm;
}
</style>
