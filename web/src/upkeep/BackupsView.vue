<script setup lang="ts">
/** The copies kept of the database: what each lacks, making one, looking one through, putting one back. */
import { useElementSize } from '@vueuse/core'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { loadAgainAfter, sayWhenLoadedAgain } from '@/api/database'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { useActions } from '@/shared/actions'
import AppBar from '@/shared/AppBar.vue'
import { useRefusal } from '@/shared/useRefusal'
import { fileSize, lacks, timeline } from './copyTimeline'

const HEIGHT = 64
const PINS = 22
const queries = useQueryClient()
const backups = useQuery({ queryKey: queryKeys.backups(), queryFn: () => unwrap(client.GET('/api/backups')) })
const { refused, guarded } = useRefusal()
/** Action under way, in words. */
const busy = ref('')
const told = ref('')
const faults = ref<readonly string[]>([])
/** The copy that would be put back, and of which it is said what it lacks. */
const chosen = ref<string | null>(null)
const picture = useTemplateRef<HTMLElement>('picture')
const { width } = useElementSize(picture)
const drawn = computed(() => (backups.data.value && width.value ? timeline(backups.data.value, width.value, HEIGHT) : null))
const room = computed(() => (backups.data.value ? fileSize(backups.data.value.bytes_free) : ''))

function when(made: string): string {
  return new Date(made).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
}

async function doing(words: string, work: () => Promise<void>) {
  if (busy.value) return
  busy.value = words
  told.value = ''
  faults.value = []
  await guarded(work)
  busy.value = ''
}

const backUp = () =>
  doing('Copying and verifying …', async () => {
    const made = await unwrap(client.POST('/api/backups', { body: {} }))
    queries.setQueryData(queryKeys.backups(), made)
    told.value = `${made.copies[0]?.name} is a whole copy.`
  })

const verify = (name: string | null) =>
  doing('Looking it through …', async () => {
    const verified = await unwrap(client.POST('/api/backups/verification', { body: { copy_name: name } }))
    faults.value = verified.faults
    const what = name ?? 'The database'
    const held = `${verified.studies} studies, ${verified.samples} samples, ${verified.readings} readings and ${verified.changes} recorded changes`
    told.value = verified.faults.length ? `${what} has faults:` : `${what} is whole: ${held} were looked through.`
  })

async function choose(copy: Schemas['CopyOut']) {
  chosen.value = copy.name
  await nextTick()
  document.querySelector<HTMLElement>('.chosen .sure')?.focus()
}

const putBack = (copy: Schemas['CopyOut']) =>
  doing('Putting it back …', () =>
    loadAgainAfter(
      unwrap(client.POST('/api/backups/restoration', { body: { copy_name: copy.name } })).then((done) => sayWhenLoadedAgain(`${done.notes}.`)),
    ),
  )

useActions(() => [
  { title: 'Back up now', words: ['copy', 'save'], run: () => void backUp() },
  { title: 'Verify the database', words: ['check', 'damage', 'faults'], run: () => void verify(null) },
])
</script>

<template>
  <div class="whole-page">
    <AppBar title="Backups" />
    <main tabindex="0" aria-label="Backups">
      <header class="head row wrap">
        <h1>Backups</h1>
        <button type="button" class="tool" :disabled="!!busy" @click="verify(null)">Verify the database</button>
        <button type="button" class="do" :disabled="!!busy" @click="backUp">Back up now</button>
      </header>
      <p role="status" class="told">{{ busy || told }}</p>
      <ul v-if="faults.length" class="faults bullets wrong">
        <li v-for="fault in faults" :key="fault">{{ fault }}</li>
      </ul>
      <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
      <p v-if="backups.error.value" class="said-wrong">{{ backups.error.value.message }}</p>
      <template v-else-if="backups.data.value">
        <p v-if="backups.data.value.notes" class="said-wrong">{{ backups.data.value.notes }}.</p>
        <div ref="picture" class="picture card">
          <svg v-if="drawn" class="chart" :viewBox="`0 0 ${width} ${HEIGHT + PINS + 18}`" :height="HEIGHT + PINS + 18" role="img" aria-label="What was entered by day, and the copies made">
            <text x="0" y="10">most on a day: {{ drawn.tallest }} {{ drawn.tallest === 1 ? 'change' : 'changes' }}</text>
            <g :transform="`translate(0 ${PINS})`">
              <path class="axis" :d="`M0 ${HEIGHT}H${width}`" />
              <rect v-for="bar in drawn.bars" :key="bar.day" class="day" :x="bar.x" :y="bar.y" :width="bar.width" :height="bar.height">
                <title>{{ bar.day }}: {{ bar.changes }} changes</title>
              </rect>
              <g v-for="pin in drawn.pins" :key="pin.name" class="pin" :class="{ safe: pin.safe, picked: pin.name === chosen }">
                <path :d="`M${pin.x} ${HEIGHT}V-4`" />
                <circle :cx="pin.x" cy="-8" r="4.5"><title>{{ pin.name }}</title></circle>
              </g>
              <text v-for="tick in drawn.ticks" :key="tick.words" class="middle" :x="Math.min(width - 16, tick.x)" :y="HEIGHT + 14">{{ tick.words }}</text>
            </g>
          </svg>
        </div>
        <table v-if="backups.data.value.copies.length" class="wide">
          <caption class="unseen">Copies, those first that hold the most</caption>
          <thead>
            <tr>
              <th>made</th>
              <th>for</th>
              <th class="number">size</th>
              <th>missing in it</th>
              <th><span class="unseen">what can be done</span></th>
            </tr>
          </thead>
          <tbody v-for="copy in backups.data.value.copies" :key="copy.name" :class="{ chosen: copy.name === chosen }">
            <tr>
              <td :title="copy.name">{{ when(copy.made) }}</td>
              <td>{{ copy.words }}</td>
              <td class="number">{{ fileSize(copy.bytes) }}</td>
              <td>{{ lacks(copy) }}</td>
              <td class="acts nowrap">
                <button type="button" class="tool" :disabled="!!busy" :aria-label="`Verify the copy of ${when(copy.made)}`" @click="verify(copy.name)">Verify</button>
                <button type="button" class="tool" :disabled="!!busy" :aria-label="`Put back the copy of ${when(copy.made)}`" @click="choose(copy)">Put back …</button>
              </td>
            </tr>
            <tr v-if="copy.name === chosen">
              <td colspan="5" class="ask">
                Everything will be as it was on {{ when(copy.made) }}; lost from sight: {{ lacks(copy) }}. What is there now is kept as a file beside the
                database<template v-if="copy.reports_missing.length">, issued reports as PDF too: no number is given again</template>, and every window is loaded again.
                <button type="button" class="do sure" :disabled="!!busy" @click="putBack(copy)">Put it back</button>
                <button type="button" class="tool" :disabled="!!busy" @click="chosen = null">Leave it</button>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-else class="soft">There is no copy yet: one is made on each day on which something is entered, before each update of Tabrel, and when you ask for one.</p>
        <section class="soft fine">
          <p>
            The database is <span class="typed">{{ backups.data.value.database }}</span> ({{ fileSize(backups.data.value.bytes) }}); its copies are kept in
            <span class="typed">{{ backups.data.value.folder }}</span>, where {{ room }} are free. Of those made by themselves the newest {{ backups.data.value.kept }} are
            kept, and those asked for until you remove them. Keep one on another disk too: copying the open database file itself loses readings, a copy made here does not.
          </p>
          <p>A green pin is a copy with all there is; a rust-coloured one lacks something.</p>
        </section>
      </template>
    </main>
  </div>
</template>

<style scoped>
h1 {
  margin-right: auto;
}
.do {
  border: 1px solid var(--hand);
  color: var(--hand);
  background: none;
  border-radius: 8px;
  padding: 0.3rem 1rem;
  font-weight: 500;
}
.do:disabled {
  opacity: 0.5;
  cursor: default;
}
.told {
  min-height: 1.4em;
  margin: 0.5rem 0;
}
.picture {
  padding: 0.6rem 0.9rem;
}
.day {
  fill: var(--slate);
  opacity: 0.55;
}
.pin path {
  stroke: var(--rust);
}
.pin circle {
  fill: var(--rust);
}
.pin.safe path {
  stroke: var(--hand);
}
.pin.safe circle {
  fill: var(--hand);
}
.pin.picked circle {
  stroke: var(--ink);
  stroke-width: 2;
}
table {
  margin-top: 0.9rem;
}
th {
  color: var(--ink-soft);
  font-size: var(--small);
}
th,
td {
  padding: 0.3rem 0.6rem;
  vertical-align: top;
}
tbody tr:first-child {
  border-top: 1px solid var(--line);
}
tbody.chosen {
  background: var(--hand-wash);
}
.acts {
  text-align: right;
}
.acts .tool {
  margin-left: 0.4rem;
}
.ask button {
  margin: 0.4rem 0.4rem 0.2rem 0;
}
.ask .do {
  margin-left: 0.4rem;
  background: var(--paper);
}
.fine {
  max-width: 62rem;
}
</style>
