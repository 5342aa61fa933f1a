<script setup lang="ts">
/** A table of counts on its way in: pasted, read from a file or typed; what was understood stands beside it, and nothing is taken unasked. */
import { useSessionStorage, watchDebounced } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import { catalogue } from '@/catalogue/catalogue'
import { readTextFile } from '@/shared/readTextFile'
import { useRefusal } from '@/shared/useRefusal'
import { emptyTable, MOST_ROWS, textOf, widthOf, withCell, withColumn, withoutRow, withRow } from './countTable'

const props = defineProps<{
  sampleId: number
  /** As CSV, where there are counts already. */
  fetchKept: () => Promise<string>
  hasCounts: boolean
  take: (body: Schemas['CountTableIn']) => Promise<unknown>
}>()
const emit = defineEmits<{ begun: []; taken: []; close: [] }>()

interface Draft {
  text: string
  cells: string[][]
  decimal: '.' | ',' | null
  scale: Schemas['CountTableIn']['scale'] | null
}
const EMPTY: Draft = { text: '', cells: [], decimal: null, scale: null }
/** The entry outlives a reload of the window. */
const draft = useSessionStorage<Draft>(`tabrel-counts-${props.sampleId}`, { ...EMPTY })
const preview = ref<Schemas['CountTableOut'] | null>(null)
const { refused, guarded } = useRefusal()
const root = useTemplateRef<HTMLElement>('root')
const isGrid = computed(() => draft.value.cells.length > 0)
const text = computed(() => (isGrid.value ? textOf(draft.value.cells) : draft.value.text))
const body = computed(() => ({ text: text.value, decimal: draft.value.decimal, scale: draft.value.scale ?? null }))
const faults = computed(() => (preview.value?.faults ?? []).map((fault, i) => ({ ...fault, id: `count-fault-${i}` })))
const general = computed(() => faults.value.filter((fault) => fault.line === null))
const faultsOfLine = (line: number) => faults.value.filter((fault) => fault.line === line)
const faultAt = (line: number, column: number) => faults.value.find((fault) => fault.line === line && fault.column === column)
const meaning = computed(() => new Map((preview.value?.headings ?? []).map((heading) => [heading.column, heading])))
const width = computed(() => widthOf(draft.value.cells))
const heading = computed(() => preview.value?.heading_line ?? 0)
/** The lines before the headings are told in words, and shown only where asked for or where one of them is at fault. */
const opensConditions = ref(false)
const conditionAtFault = computed(() => faults.value.some((fault) => fault.line !== null && fault.line < heading.value))
const showsConditions = computed(() => opensConditions.value || conditionAtFault.value)
const count = computed(() => {
  const table = preview.value
  if (!table?.is_complete) return 'Take it'
  return `Take ${table.sizes_um.length} sizes, ${table.intervals} interval${table.intervals === 1 ? '' : 's'}`
})

let asked = 0
/** The next answer that still counts moves the focus on, whichever request brings it: a later one may overtake a slow one. */
let movesOn = false
async function look() {
  const mine = ++asked
  if (!text.value.trim()) return void (preview.value = null)
  try {
    const answer = await unwrap(client.POST('/api/samples/{sample_id}/counts/preview', { params: { path: { sample_id: props.sampleId } }, body: body.value }))
    if (mine !== asked) return
    preview.value = answer
    // a table short enough is shown cell by cell, and from then on is its cells
    if (!isGrid.value && answer.row_count && answer.row_count <= MOST_ROWS && answer.rows.length === answer.row_count) draft.value = { ...draft.value, cells: answer.rows.map((row) => [...row.cells]), text: '' }
    if (!movesOn) return
    movesOn = false
    await nextTick()
    focusNext()
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    if (mine !== asked) return
    movesOn = false
    refused.value = error.message
  }
}
watch(() => text.value.trim() !== '', (isBegun) => isBegun && emit('begun'), { immediate: true })
watchDebounced(body, look, { debounce: 200, immediate: true })

async function begin(given: string) {
  refused.value = ''
  draft.value = { ...EMPTY, text: given }
  movesOn = true
  await look()
}
async function onFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) await guarded(async () => begin(await readTextFile(file, catalogue().count_table_bytes)))
  input.value = ''
}
function onPaste(event: ClipboardEvent) {
  const pasted = event.clipboardData?.getData('text/plain') ?? ''
  if (!pasted.includes('\n')) return
  event.preventDefault()
  void begin(pasted)
}
async function type() {
  draft.value = { ...EMPTY, cells: emptyTable() }
  await nextTick()
  focusCell(1, 0)
}
async function edit() {
  await guarded(async () => begin(await props.fetchKept()))
}
function throwAway() {
  draft.value = { ...EMPTY }
  preview.value = null
  emit('close')
}
/** Go to what is to be answered or corrected first, else to taking it. */
function focusNext() {
  const target = root.value?.querySelector<HTMLElement>('[data-question] button, input[aria-invalid="true"], [data-take]:not(:disabled)')
  target?.focus()
}
function answer(key: string, value: string) {
  draft.value = { ...draft.value, [key]: value }
  movesOn = true
  void look()
}
function focusCell(row: number, column: number): boolean {
  const field = root.value?.querySelector<HTMLInputElement>(`[data-cell="${row}/${column}"]`)
  field?.focus()
  field?.select()
  return Boolean(field)
}
function onKey(event: KeyboardEvent, row: number, column: number) {
  const by = { Enter: event.shiftKey ? -1 : 1, ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (!by || event.altKey || event.ctrlKey) return
  event.preventDefault()
  if (focusCell(row + by, column) || event.key !== 'Enter' || by < 0) return
  root.value?.querySelector<HTMLElement>('[data-take]:not(:disabled), [data-add="row"]')?.focus()
}
async function addRow() {
  draft.value.cells = withRow(draft.value.cells)
  await nextTick()
  focusCell(draft.value.cells.length - 1, 0)
}
async function onTake() {
  if (!(await guarded(() => props.take(body.value)))) return
  throwAway()
  emit('taken')
}
</script>

<template>
  <section ref="root" class="card entry" aria-label="Table of counts" data-key="counts">
    <h2>{{ hasCounts ? 'Another table of counts' : 'Counts of a test' }}</h2>
    <div v-if="!isGrid" class="begin">
      <label class="unseen" for="counts-text">Table of counts, with its headings</label>
      <textarea
        id="counts-text"
        v-model="draft.text"
        class="typed"
        rows="3"
        data-stop
        placeholder="Paste the test house's table here, with its headings: sizes with upstream and downstream beside them, or a row an interval."
        @paste="onPaste"
      />
      <div class="tools row wrap">
        <label class="tool file">read CSV … <input type="file" accept=".csv,.txt,.tsv,text/csv,text/plain" aria-label="Read a table of counts from a file" @change="onFile" /></label>
        <button type="button" class="tool" data-begin="type" @click="type">type it cell by cell</button>
        <button v-if="hasCounts" type="button" class="tool" data-begin="edit" @click="edit">change the table there is</button>
        <button v-if="hasCounts" type="button" class="tool" @click="throwAway">close</button>
      </div>
    </div>
    <ul v-if="preview && (preview.notes.length || preview.settings.length)" class="bullets soft small">
      <li v-for="sentence in preview.notes" :key="sentence">{{ sentence }}</li>
      <li v-if="preview.settings.length">
        Conditions: {{ preview.settings.map((setting) => `${setting.title} ${setting.text}`).join('; ') }}.
        <button v-if="isGrid && !conditionAtFault" type="button" class="tool" :aria-pressed="opensConditions" @click="opensConditions = !opensConditions">{{ opensConditions ? 'hide their lines' : 'show their lines' }}</button>
      </li>
    </ul>
    <fieldset v-for="question in preview?.questions ?? []" :key="question.key" class="question wrap" :data-question="question.key">
      <legend>{{ question.words }}</legend>
      <button v-for="[value, words] in question.answers" :key="value" type="button" class="tool" @click="answer(question.key, value!)">{{ words }}</button>
    </fieldset>
    <p v-for="fault in general" :key="fault.id" class="said-wrong" role="alert">{{ fault.words }}</p>
    <div v-if="isGrid" class="grid-frame scrolls">
      <table>
        <caption class="unseen">The table, cell by cell</caption>
        <tbody>
          <template v-for="(row, r) in draft.cells" :key="r">
            <tr v-if="r + 1 === heading" class="meaning">
              <td v-for="i in width" :key="i">{{ meaning.get(i - 1)?.words }}</td>
              <td />
            </tr>
            <tr v-if="r + 1 >= heading || showsConditions" :class="{ heading: r + 1 === heading }">
              <td v-for="(cell, c) in row" :key="c">
                <input
                  :value="cell"
                  :size="r + 1 < heading ? 26 : Math.max(9, ...draft.cells.slice(Math.max(0, heading - 1)).map((item) => (item[c] ?? '').length))"
                  :data-cell="`${r}/${c}`"
                  :aria-label="`line ${r + 1}, ${meaning.get(c)?.words ?? `column ${c + 1}`}`"
                  :aria-invalid="faultAt(r + 1, c) ? 'true' : undefined"
                  :aria-describedby="faultAt(r + 1, c)?.id"
                  autocomplete="off"
                  spellcheck="false"
                  @input="draft.cells = withCell(draft.cells, r, c, ($event.target as HTMLInputElement).value)"
                  @keydown="onKey($event, r, c)"
                />
              </td>
              <td><button type="button" class="tool drop" :aria-label="`remove line ${r + 1}`" tabindex="-1" @click="draft.cells = withoutRow(draft.cells, r)">×</button></td>
            </tr>
            <tr v-for="fault in faultsOfLine(r + 1)" :key="fault.id" class="fault">
              <td :colspan="width + 1"><span :id="fault.id" class="said-wrong" role="alert">{{ fault.words }}</span></td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <template v-else-if="preview && preview.row_count">
      <p class="soft">{{ preview.row_count.toLocaleString('en') }} lines.</p>
      <p v-for="fault in faults.filter((fault) => fault.line !== null)" :key="fault.id" class="said-wrong" role="alert">Line {{ fault.line }}: {{ fault.words }}</p>
    </template>
    <div v-if="isGrid || preview" class="tools row wrap">
      <button type="button" class="tool take" data-take :disabled="!preview?.is_complete" @click="onTake">{{ count }}</button>
      <template v-if="isGrid">
        <button type="button" class="tool" data-add="row" @click="addRow">add a line</button>
        <button type="button" class="tool" data-add="column" @click="draft.cells = withColumn(draft.cells)">add a column</button>
      </template>
      <button type="button" class="tool" data-throw-away @click="throwAway">throw it away</button>
      <span v-if="refused" class="said-wrong" role="alert">{{ refused }}</span>
      <span v-else-if="preview && !preview.is_complete && !preview.questions.length && faults.length" class="soft">{{ faults.length }} to correct; nothing is taken before.</span>
    </div>
  </section>
</template>

<style scoped>
.tools {
  margin-top: 0.4rem;
}
.take:not(:disabled) {
  background: var(--hand);
  color: var(--paper);
  border-color: var(--hand);
}
.file {
  cursor: pointer;
  line-height: 1.6;
}
.file input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.file:focus-within {
  outline: 2px solid var(--hand);
}
.question {
  border: 1px solid var(--amber);
  background: var(--amber-wash);
  border-radius: 8px;
  margin: 0.4rem 0;
  padding: 0.3rem 0.6rem 0.5rem;
}
.question legend {
  float: left;
  width: 100%;
  font-size: var(--small);
}
.question legend::first-letter {
  text-transform: uppercase;
}
.grid-frame {
  max-height: 22rem;
  border: 1px solid var(--line);
  border-radius: 6px;
}
td {
  padding: 0;
  border: 1px solid var(--line);
}
td input {
  border: 0;
  background: none;
  font-family: var(--typed);
  font-size: var(--fine);
  padding: 0.15rem 0.35rem;
}
td input[aria-invalid='true'] {
  background: var(--rust-wash);
}
.heading input {
  font-weight: 600;
  background: var(--slate-wash);
}
.meaning td {
  font-size: var(--fine);
  color: var(--ink-soft);
  padding: 0.1rem 0.35rem;
  border: 0;
}
.fault td {
  border: 0;
  padding: 0.05rem 0.35rem 0.3rem;
  font-size: var(--small);
}
.drop {
  border: 0;
  min-width: 1.5rem;
}
</style>
