<script setup lang="ts">
/** Studies: open one, or import a document. */
import { ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { client, ProblemError, unwrap } from '@/api/client'
import { catalogue } from '@/catalogue/catalogue'
import { readTextFile } from '@/shared/readTextFile'
import AppBar from '@/shared/AppBar.vue'
import { useImportStudy, useStudies } from './useStudies'

const router = useRouter()
const studies = useStudies()
const importing = useImportStudy()
const name = ref('')
const said = ref('')
const place = ref('')
const picker = useTemplateRef<HTMLInputElement>('picker')

async function open(studyId: number) {
  said.value = ''
  try {
    const study = await unwrap(client.GET('/api/studies/{study_id}', { params: { path: { study_id: studyId } } }))
    const first = study.samples[0]
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
  said.value = error.message
  place.value = error.where
}

/** A new study starts with one empty sample, on the short sheet. */
async function create() {
  said.value = place.value = ''
  if (!name.value.trim()) {
    said.value = 'Give the study a name first.'
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
  said.value = place.value = ''
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
  said.value = place.value = ''
  if (!file) return
  try {
    const study = await importing.mutateAsync(await readTextFile(file, catalogue().study_bytes))
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
  <div class="page">
    <AppBar title="Studies" />
    <main>
      <header>
        <h1>Studies</h1>
        <form class="new" @submit.prevent="create">
          <input v-model="name" aria-label="Name of a new study" placeholder="name of a new study" autocomplete="off" />
          <button type="submit">New study</button>
        </form>
        <label class="import">
          Import a study document
          <input ref="picker" type="file" accept=".json,application/json" class="unseen" @change="take" />
        </label>
      </header>
      <p v-if="said" class="said-wrong" role="alert">
        <span v-if="place" class="typed">{{ place }}</span> {{ said }}
      </p>
      <p v-if="studies.error.value" class="said-wrong">{{ studies.error.value.message }}</p>
      <p v-else-if="studies.data.value?.length === 0" class="soft">
        There is no study yet. Type a name above and start one, or import a study document;
        <span class="typed">tabrel demo</span> starts with one.
      </p>
      <ul v-else class="list">
        <li v-for="study in studies.data.value" :key="study.id">
          <button type="button" class="card" @click="open(study.id)">
            <h2>{{ study.name }}</h2>
            <p v-if="study.question" class="question">{{ study.question }}</p>
            <p class="soft">
              {{ study.sample_count }} {{ study.sample_count === 1 ? 'sample' : 'samples' }},
              {{ study.reading_count }} readings;
              <template v-if="study.cut_count === study.sample_count">all cut open</template>
              <template v-else>{{ study.sample_count - study.cut_count }} still whole</template>
            </p>
          </button>
          <button type="button" class="copy" @click="copy(study.id)">Copy</button>
          <a class="export" :href="`/api/studies/${study.id}/document`" :download="`${study.name}.study.json`">
            Export document
          </a>
        </li>
      </ul>
    </main>
  </div>
</template>

<style scoped>
.page {
  min-height: 100%;
}
main {
  max-width: 62rem;
  margin: 0 auto;
  padding: 2rem 1rem;
}
header {
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 1.2rem;
}
.new {
  display: flex;
  gap: 0.4rem;
  margin-left: auto;
  margin-right: 0.8rem;
}
.new input {
  font: inherit;
  color: inherit;
  width: 17rem;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 8px;
  padding: 0.45rem 0.8rem;
}
.new button,
.copy {
  border: 1px solid var(--hand);
  color: var(--hand);
  background: none;
  border-radius: 8px;
  padding: 0.45rem 1rem;
  cursor: pointer;
  font-weight: 500;
}
.copy {
  padding: 0.2rem 0.8rem;
}
.import {
  border: 1px solid var(--hand);
  color: var(--hand);
  border-radius: 8px;
  padding: 0.5rem 1rem;
  cursor: pointer;
  font-weight: 500;
}
.import:focus-within {
  outline: 2px solid var(--hand);
  outline-offset: 2px;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 0.8rem;
}
.list li {
  display: grid;
  grid-template-columns: 1fr auto auto;
  align-items: center;
  background: var(--paper);
  border: 1px solid var(--line);
  border-left: 6px solid var(--amber);
  border-radius: 10px;
}
.card {
  border: 0;
  background: none;
  text-align: left;
  padding: 1rem 1.2rem;
  cursor: pointer;
}
.card h2 {
  font-size: 1.15rem;
}
.question {
  margin: 0.3rem 0;
  font-style: italic;
}
.card p.soft {
  margin: 0.2rem 0 0;
  font-size: 0.9rem;
}
.export {
  padding: 0 1.2rem;
  font-size: 0.9rem;
}
</style>
