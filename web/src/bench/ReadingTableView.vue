<script setup lang="ts">
/** Readings from a table or an old spreadsheet: what is understood, questioned or refused stands beside it, and nothing is taken unasked. */
import { useSessionStorage, watchDebounced } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { catalogue } from '@/catalogue/catalogue'
import { readTextFile, sentAsItIs } from '@/shared/readTextFile'
import SwitchButtons from '@/shared/SwitchButtons.vue'
import { useRefusal } from '@/shared/useRefusal'

const props = defineProps<{ studyId: number; sampleId: number }>()
type Cell = Schemas['TableReadingOut']

interface Draft {
  text: string
  decimal: '.' | ',' | null
  family: 'metric' | 'inch' | null
}
const EMPTY: Draft = { text: '', decimal: null, family: null }
/** The table outlives a reload of the window. */
const draft = useSessionStorage<Draft>(`tabrel-readings-${props.studyId}`, { ...EMPTY })
const preview = ref<Schemas['ReadingTableOut'] | null>(null)
const foundOf = ref('')
const taken = ref<Schemas['TakenFilterOut'][]>([])
const sheets = ref<Schemas['SheetTextOut'][]>([])
const { refused, guarded } = useRefusal()
const { refused: notLooked, guarded: looking } = useRefusal()
const body = computed(() => ({ ...draft.value, sample_id: props.sampleId }))
const path = computed(() => ({ study_id: props.studyId }))

const MOST_BYTES = 10_000_000
const WORKBOOK = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
const LAYOUTS = { filters_down: 'a filter a row', filters_across: 'a filter a column', readings_down: 'a reading a row' } as const
const STATES: Readonly<Record<Cell['state'], string>> = { understood: 'understood', questioned: 'questioned', refused: 'refused', left_out: 'left out' }
const DECIMALS = [
  { label: '1.5', value: '.' as const },
  { label: '1,5', value: ',' as const },
]
const FAMILIES = [
  { label: 'mm, g, kPa', value: 'metric' as const },
  { label: 'in, oz, psi', value: 'inch' as const },
]

watchDebounced(
  body,
  async (asked) => {
    if (!asked.text.trim()) return void (preview.value = null)
    await looking(async () => {
      const answer = await unwrap(client.POST('/api/studies/{study_id}/readings-table/preview', { params: { path: path.value }, body: asked }))
      if (JSON.stringify(asked) !== JSON.stringify(body.value)) return
      preview.value = answer
      foundOf.value = JSON.stringify(asked)
    })
  },
  { debounce: 200, immediate: true, deep: true },
)
/** The notes beside the table belong to this very table. */
const isLooked = computed(() => preview.value !== null && foundOf.value === JSON.stringify(body.value))
const cells = computed(() => preview.value?.readings ?? [])
const of = (state: Cell['state']) => cells.value.filter((cell) => cell.state === state)
const count = computed(() => cells.value.filter((cell) => cell.state === 'understood' || cell.state === 'questioned').reduce((sum, one) => sum + one.readings.length, 0))

function begin(text: string) {
  draft.value = { ...EMPTY, text }
  taken.value = []
}
const picker = useTemplateRef<HTMLInputElement>('picker')
async function onFile() {
  const file = picker.value?.files?.[0]
  sheets.value = []
  if (file)
    await guarded(async () => {
      if (!file.name.toLowerCase().endsWith('.xlsx')) return begin(await readTextFile(file, MOST_BYTES))
      sheets.value = await unwrap(client.POST('/api/spreadsheet-text', await sentAsItIs(file, catalogue().workbook_bytes, WORKBOOK)))
      begin(sheets.value[0]?.text ?? '')
    })
  if (picker.value) picker.value.value = ''
}
async function take() {
  if (!isLooked.value || !preview.value?.is_complete) return
  await guarded(async () => {
    const answer = await unwrap(client.POST('/api/studies/{study_id}/readings-table', { params: { path: path.value }, body: body.value }))
    begin('')
    sheets.value = []
    preview.value = null
    taken.value = answer.filters
  })
}
</script>

<template>
  <div class="table-in view small">
    <section class="write scrolls" aria-label="The table">
      <h2 class="small">Readings from a table</h2>
      <label for="readings-text">readings from a table, pasted with its headings, or a CSV or XLSX file</label>
      <textarea id="readings-text" v-model="draft.text" rows="14" class="typed" spellcheck="false" placeholder="filter&#9;can OD [mm]&#9;strip length [m]&#10;Korvath&#9;76.2&#9;1.62" @keydown.ctrl.enter.prevent="take" />
      <p class="acts row wrap">
        <label class="tool file">choose a file<input ref="picker" type="file" accept=".csv,.tsv,.txt,.xlsx" class="unseen" @change="onFile" /></label>
        <label v-if="sheets.length > 1">sheet <select aria-label="Sheet of the workbook" @change="begin(sheets[($event.target as HTMLSelectElement).selectedIndex]!.text)"><option v-for="sheet in sheets" :key="sheet.name">{{ sheet.name }}</option></select></label>
        <button type="button" class="tool" :disabled="!isLooked || !preview?.is_complete" data-take @click="take">{{ preview?.is_complete ? `take ${count} reading${count === 1 ? '' : 's'}` : 'take it' }}</button>
      </p>
      <p v-if="preview?.asks_decimal || draft.decimal" class="ask row wrap" data-ask="decimal">
        <span>{{ preview?.asks_decimal ? `“${preview.asks_decimal}” can be read either way: which is one and a half here?` : 'One and a half is written' }}</span>
        <SwitchButtons :model-value="draft.decimal!" :options="DECIMALS" label="Decimal mark" small @update:model-value="draft.decimal = $event" />
      </p>
      <p v-if="preview?.asks_units || draft.family" class="ask row wrap" data-ask="units">
        <span>{{ draft.family ? 'Numbers without a unit are in' : 'Some numbers have no unit: whose are they in?' }}</span>
        <SwitchButtons :model-value="draft.family!" :options="FAMILIES" label="Units of bare numbers" small @update:model-value="draft.family = $event" />
      </p>
      <p v-if="refused || notLooked" class="said-wrong" role="alert">{{ refused || notLooked }}</p>
      <p class="soft fine">A filter a row, a filter a column, or a reading a row. Columns are known by the words of the trade, units by the heading. Numbers stay as they are written, with their unit; nothing is taken before you take it, and each filter can be undone. Readings without a label are of the filter in hand.</p>
    </section>
    <section class="seen fills scrolls" tabindex="0" role="region" aria-label="What is understood">
      <p v-for="item in taken" :key="item.sample_id" data-taken>
        <router-link :to="{ name: 'outside', params: { studyId, sampleId: item.sample_id } }">{{ item.label }}</router-link>{{ item.is_new ? ', begun' : '' }}: {{ item.reading_count }} reading{{ item.reading_count === 1 ? '' : 's' }} taken.
      </p>
      <p v-if="preview?.problem" class="said-wrong">{{ preview.problem }}</p>
      <template v-else-if="preview && cells.length">
        <h2 class="small" data-part="summary">
          {{ LAYOUTS[preview.layout!] }}: {{ of('understood').length }} understood, {{ of('questioned').length }} questioned, {{ of('refused').length }} refused, {{ of('left_out').length }} left out
        </h2>
        <p v-if="preview.new_labels.length" class="soft">Not in this study yet, and begun when it is taken: {{ preview.new_labels.join(', ') }}.</p>
        <table class="wide">
          <thead>
            <tr><th scope="col">line</th><th scope="col">filter</th><th scope="col">heading</th><th scope="col">taken for</th><th scope="col">readings</th><th scope="col">what is said</th></tr>
          </thead>
          <tbody>
            <tr v-for="(item, i) in cells" :key="i" :data-cell-state="item.state">
              <td class="number">{{ item.line }}</td>
              <td>{{ item.label }}</td>
              <td>{{ item.words }}</td>
              <td>{{ item.understood_as }}</td>
              <td class="typed">{{ item.readings.length ? item.readings.join(', ') : item.text }}</td>
              <td><strong :class="item.state">{{ STATES[item.state] }}</strong><template v-if="item.why">: {{ item.why }}</template></td>
            </tr>
          </tbody>
        </table>
      </template>
      <p v-else-if="!taken.length" class="soft">What is understood of the table stands here, cell by cell, before anything is taken.</p>
    </section>
  </div>
</template>

<style scoped>
.table-in {
  height: 100%;
  display: flex;
  gap: 1.4rem;
  padding: 0.6rem 1rem;
  min-height: 0;
}
.write {
  flex: 0 1 28rem;
}
textarea {
  white-space: pre;
}
.file {
  position: relative;
  min-height: 1.6rem;
}
.file:focus-within {
  outline: 2px solid var(--hand);
}
th {
  font-weight: 600;
}
th,
td {
  padding: 0.2rem 0.5rem;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
.understood {
  color: var(--hand);
}
.questioned {
  color: var(--amber-ink);
}
.refused {
  color: var(--rust);
}
@media (max-width: 900px) {
  .table-in {
    flex-direction: column;
    overflow: auto;
  }
  .seen,
  .write {
    overflow: visible;
    flex: none;
  }
}
</style>
