<script setup lang="ts">
/** Studies: search and sort them, open one, begin or import another, put away, delete and put back. */
import { useToast } from 'primevue/usetoast'
import { computed, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import { catalogue } from '@/catalogue/catalogue'
import { useActions } from '@/shared/actions'
import { readTextFile } from '@/shared/readTextFile'
import AppBar from '@/shared/AppBar.vue'
import SwitchButtons from '@/shared/SwitchButtons.vue'
import StudyCard from './StudyCard.vue'
import { shownStudies, SORTS, type Sort } from './studyList'
import { useImportPackage, useImportStudy, useStudies } from './useStudies'

type Status = Schemas['StatusIn']['status']

const router = useRouter()
const toast = useToast()
const studies = useStudies()
const unpacking = useImportPackage()
const importing = useImportStudy()
const name = ref('')
const refusal = ref('')
const place = ref('')
const picker = useTemplateRef<HTMLInputElement>('picker')
const asked = ref('')
const sort = ref<Sort>('changed')
const status = ref<Status>('in_use')
const SHELVES: readonly { label: string; value: Status }[] = [
  { label: 'In use', value: 'in_use' },
  { label: 'Archived', value: 'archived' },
  { label: 'Deleted', value: 'deleted' },
]
const there = computed(() => studies.data.value?.filter((study) => study.status === status.value) ?? [])
const shelves = computed(() =>
  SHELVES.map(({ label, value }) => ({ value, label: `${label} ${studies.data.value?.filter((study) => study.status === value).length ?? 0}` })),
)
const shown = computed(() => shownStudies(there.value, asked.value, sort.value))

const TOLD_MS = 6000
const DONE: Record<Status, string> = { in_use: 'put back', archived: 'archived: everything of it is kept', deleted: 'deleted: it can be put back' }

function told(words: string) {
  toast.removeAllGroups()
  toast.add({ severity: 'secondary', summary: words, life: TOLD_MS })
}

async function guarded(work: () => Promise<unknown>, words: string) {
  refusal.value = place.value = ''
  try {
    await work()
    told(words)
  } catch (error) {
    tell(error)
  }
}

/** Put a study away, delete it, or put it back. */
function move(study: Schemas['StudyRowOut'], to: Status) {
  const params = { path: { study_id: study.id } }
  return guarded(() => unwrap(client.PUT('/api/studies/{study_id}/status', { params, body: { status: to } })), `“${study.name}” is ${DONE[to]}.`)
}

function moveSample(sample: Schemas['SampleNameOut'], to: Status) {
  const params = { path: { sample_id: sample.id } }
  return guarded(() => unwrap(client.PUT('/api/samples/{sample_id}/status', { params, body: { status: to } })), `“${sample.label}” is ${DONE[to]}.`)
}

useActions(() => [
  { title: 'Import a study document', words: ['json', 'load', 'file'], run: () => picker.value?.click() },
  ...there.value.flatMap((study) => [
    { title: `Open ${study.name}`, words: [study.question ?? ''], run: () => void open(study.id) },
    ...(study.status === 'in_use' ? [{ title: `Archive ${study.name}`, words: ['put away'], run: () => void move(study, 'archived') }] : []),
    ...(study.status === 'deleted' ? [] : [{ title: `Delete ${study.name}`, words: ['remove', 'bin'], run: () => void move(study, 'deleted') }]),
  ]),
])

async function open(studyId: number) {
  refusal.value = ''
  try {
    const study = await unwrap(client.GET('/api/studies/{study_id}', { params: { path: { study_id: studyId } } }))
    const first = study.samples.find((sample) => sample.status === 'in_use') ?? study.samples[0]
    if (first) return void router.push({ name: 'outside', params: { studyId, sampleId: first.id } })
    const path = { study_id: studyId }
    const added = await unwrap(
      client.POST('/api/studies/{study_id}/samples', { params: { path }, body: { text: 'Sample 1' } }),
    )
    void router.push({ name: 'short', params: { studyId, sampleId: added.sample_id } })
  } catch (error) {
    tell(error)
  }
}

function tell(error: unknown) {
  if (!(error instanceof ProblemError)) throw error
  refusal.value = error.message
  place.value = error.where
}

/** A new study starts with one empty sample, on the short sheet. */
async function create() {
  refusal.value = place.value = ''
  if (!name.value.trim()) {
    refusal.value = 'Give the study a name first.'
    return
  }
  const document = { format: 'tabrel-study', version: 2, name: name.value.trim(), samples: [{ label: 'Sample 1' }] }
  try {
    const study = await importing.mutateAsync(JSON.stringify(document))
    void router.push({ name: 'short', params: { studyId: study.id, sampleId: study.samples[0]!.id } })
  } catch (error) {
    tell(error)
  }
}

/** Copy a study, readings and all, under a name of its own. */
async function copy(studyId: number) {
  refusal.value = place.value = ''
  try {
    const path = { study_id: studyId }
    const document = await unwrap(client.GET('/api/studies/{study_id}/document', { params: { path } }))
    await importing.mutateAsync(JSON.stringify({ ...document, name: `${String(document.name)}, copy` }))
  } catch (error) {
    tell(error)
  }
}

async function take(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  refusal.value = place.value = ''
  if (!file) return
  try {
    const isZip = file.name.toLowerCase().endsWith('.zip')
    const study = isZip ? await unpacking.mutateAsync(file) : await importing.mutateAsync(await readTextFile(file, catalogue().study_bytes))
    if (study.notes) told(`Imported; ${study.notes}.`)
    const first = study.samples[0]
    if (first) void router.push({ name: 'outside', params: { studyId: study.id, sampleId: first.id } })
  } catch (error) {
    tell(error)
  } finally {
    if (picker.value) picker.value.value = ''
  }
}
</script>

<template>
  <div class="whole-page">
    <AppBar title="Studies" />
    <main>
      <header class="row wrap spread">
        <h1>Studies</h1>
        <form class="new push" @submit.prevent="create">
          <input v-model="name" aria-label="Name of a new study" placeholder="name of a new study" autocomplete="off" />
          <button type="submit">New study</button>
        </form>
        <label class="import">
          Import a study, .json or .zip
          <input ref="picker" type="file" accept=".json,.zip,application/json,application/zip" class="unseen" @change="take" />
        </label>
        <router-link to="/preferences" class="backups">Own preferences</router-link>
        <router-link to="/backups" class="backups">Backups</router-link>
        <router-link to="/about" class="backups">About</router-link>
      </header>
      <p v-if="refusal" class="said-wrong" role="alert">
        <span v-if="place" class="typed">{{ place }}</span> {{ refusal }}
      </p>
      <p v-if="studies.error.value" class="said-wrong">{{ studies.error.value.message }}</p>
      <template v-else-if="studies.data.value">
        <div class="sift row wrap" role="search">
          <input v-model="asked" type="search" aria-label="Search studies" placeholder="search by study, question, sample, maker, part number" autocomplete="off" />
          <label>sort by <select v-model="sort"><option v-for="(words, key) in SORTS" :key="key" :value="key">{{ words }}</option></select></label>
          <SwitchButtons v-model="status" :options="shelves" label="Which studies" small />
        </div>
        <p v-if="!studies.data.value.length" class="soft">
          There is no study yet. Type a name above and start one, or import a study document;
          <span class="typed">tabrel demo</span> starts with one.
        </p>
        <p v-else-if="!shown.length" class="soft" role="status">
          <template v-if="asked.trim()">No study here is known by these words: try others, or look among {{ status === 'in_use' ? 'archived and deleted ones' : 'those in use' }}.</template>
          <template v-else>None is {{ status === 'in_use' ? 'in use' : status }}.</template>
        </p>
        <ul class="list">
          <StudyCard v-for="study in shown" :key="study.id" :study="study" @open="open(study.id)" @copy="copy(study.id)" @status="move(study, $event)" @sample-status="moveSample" />
        </ul>
      </template>
    </main>
  </div>
</template>

<style scoped>
header {
  margin-bottom: 0.8rem;
}
.new {
  display: flex;
  gap: 0.4rem;
}
.new input,
.sift input,
.sift select {
  padding: 0.4rem 0.8rem;
}
.new input {
  width: 16rem;
}
.new button,
.import {
  border: 1px solid var(--hand);
  color: var(--hand);
  background: none;
  border-radius: 8px;
  padding: 0.4rem 1rem;
  cursor: pointer;
  font-weight: 500;
}
.import:focus-within {
  outline: 2px solid var(--hand);
  outline-offset: 2px;
}
.sift {
  gap: 0.6rem 1rem;
  margin-bottom: 0.8rem;
}
.sift input {
  flex: 1 1 18rem;
}
.list {
  display: grid;
  gap: 0.8rem;
}
</style>
