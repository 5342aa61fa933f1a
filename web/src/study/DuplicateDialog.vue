<script setup lang="ts">
/** A sample begun with chosen parts of another one, or of a template; what is copied stays marked until it is confirmed. */
import { useQuery } from '@tanstack/vue-query'
import Dialog from 'primevue/dialog'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { catalogue } from '@/catalogue/catalogue'
import { keepFocus } from '@/shared/dialogFocus'
import { useRefusal } from '@/shared/useRefusal'

type Part = NonNullable<Schemas['DuplicateIn']['parts']>[number]

const props = defineProps<{ studyId: number; samples: readonly Schemas['SampleTagOut'][]; sampleId: number }>()
const emit = defineEmits<{ made: [sampleId: number] }>()
const open = defineModel<boolean>('open', { required: true })

const usual = () => everything().filter((key) => catalogue().parts_to_copy[key]!.is_usual)
const everything = () => Object.keys(catalogue().parts_to_copy) as Part[]
/** `s12` a sample, `t3` a template. */
const source = ref('')
const label = ref('')
const parts = ref<Part[]>(usual())
const templateName = ref('')
/** Action to be confirmed first: replacing a template, or leaving out obsolete parts. */
const asked = ref<'replace' | 'without' | null>(null)
const removed = ref<number | null>(null)
const told = ref('')
const { refused, guarded } = useRefusal()
const first = useTemplateRef<HTMLInputElement>('first')
const templates = useQuery({
  queryKey: queryKeys.templates(),
  queryFn: () => unwrap(client.GET('/api/templates')),
  enabled: open,
})
const template = computed(() => templates.data.value?.find((template) => `t${template.id}` === source.value))
const sourceLabel = computed(() => template.value?.name ?? props.samples.find((sample) => `s${sample.id}` === source.value)?.label ?? '')

watch(open, async (now) => {
  if (!now) return
  source.value = `s${props.sampleId}`
  label.value = templateName.value = told.value = refused.value = ''
  parts.value = usual()
  asked.value = removed.value = null
  await nextTick()
  first.value?.focus()
})
watch(source, () => {
  asked.value = null
  refused.value = ''
  if (template.value) parts.value = template.value.parts as Part[]
})

async function make() {
  const without = asked.value === 'without'
  asked.value = null
  const id = Number(source.value.slice(1))
  const from = template.value ? { template_id: id } : { sample_id: id }
  const body: Schemas['DuplicateIn'] = { ...from, label: label.value, parts: parts.value, without_gone: without }
  await guarded(async () => {
    const path = { study_id: props.studyId }
    try {
      const added = await unwrap(client.POST('/api/studies/{study_id}/duplicates', { params: { path }, body }))
      open.value = false
      emit('made', added.sample_id)
    } catch (error) {
      if (error instanceof ProblemError && error.where === 'template_id') asked.value = 'without'
      throw error
    }
  })
}

async function saveTemplate() {
  const replace = asked.value === 'replace'
  asked.value = null
  told.value = ''
  const body: Schemas['TemplateIn'] = { name: templateName.value, sample_id: Number(source.value.slice(1)), parts: parts.value, replace }
  await guarded(async () => {
    try {
      const saved = await unwrap(client.POST('/api/templates', { body }))
      told.value = `Saved as “${saved.name}”: it is offered in every study.`
      templateName.value = ''
    } catch (error) {
      if (error instanceof ProblemError && error.status === 409) asked.value = 'replace'
      throw error
    }
  })
}

async function removeTemplate(id: number) {
  const params = { path: { template_id: id } }
  if (!(await guarded(() => unwrap(client.DELETE('/api/templates/{template_id}', { params, body: {} }))))) return
  removed.value = id
  source.value = `s${props.sampleId}`
}

async function putBack(id: number) {
  const params = { path: { template_id: id } }
  if (await guarded(() => unwrap(client.POST('/api/templates/{template_id}/put-back', { params, body: {} })))) removed.value = null
}
</script>

<template>
  <Dialog v-model:visible="open" header="Duplicate a sample" modal dismissable-mask position="top" :style="{ width: '46rem' }">
    <form class="duplicate" @submit.prevent="make" @focusin="keepFocus">
      <div class="line">
        <label>
          copy from
          <select v-model="source">
            <optgroup label="Samples of this study">
              <option v-for="sample in samples" :key="sample.id" :value="`s${sample.id}`">{{ sample.label }}</option>
            </optgroup>
            <optgroup v-if="templates.data.value?.length" label="Templates">
              <option v-for="template in templates.data.value" :key="template.id" :value="`t${template.id}`">{{ template.name }}</option>
            </optgroup>
          </select>
        </label>
        <label>
          label of the new one
          <input ref="first" v-model="label" autocomplete="off" autofocus :placeholder="`${sourceLabel} with the next number`" />
        </label>
      </div>
      <fieldset>
        <legend class="small">
          what is copied
          <button type="button" class="link" @click="parts = everything()">all of it</button>
          <button type="button" class="link" @click="parts = usual()">the usual</button>
        </legend>
        <label v-for="(part, key) in catalogue().parts_to_copy" :key="key" :class="{ chosen: parts.includes(key as Part) }">
          <input v-model="parts" type="checkbox" :value="key" />
          <span><strong class="sentence">{{ part.title }}</strong> <span class="soft">{{ part.holds }}</span></span>
        </label>
      </fieldset>
      <p class="soft fine">
        What is copied is marked, and counts as assumed, until a reading of the new one replaces it or <kbd>Alt+C</kbd> confirms it.
        Dates, use, tests and what was set aside are never copied; masses, counts and valve readings only when chosen.
      </p>
      <p v-if="refused" class="said-wrong" role="alert">
        {{ refused }}
        <button v-if="asked === 'without'" type="submit">Use it without</button>
        <button v-else-if="asked === 'replace'" type="button" @click="asked = 'replace'; saveTemplate()">Replace it</button>
      </p>
      <p v-if="told" role="status">{{ told }}</p>
      <p v-if="removed !== null" role="status">The template is removed. <button type="button" @click="putBack(removed)">Put it back</button></p>
      <div class="acts row wrap spread">
        <button type="submit" class="main strong">Duplicate</button>
        <span v-if="!template" class="save row wrap small">
          <label>or save these parts as a template <input v-model="templateName" autocomplete="off" placeholder="its name" @keydown.enter.prevent="saveTemplate" /></label>
          <button type="button" @click="saveTemplate">Save template</button>
        </span>
        <button v-else type="button" @click="removeTemplate(template.id)">Remove this template</button>
      </div>
    </form>
  </Dialog>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.8rem;
}
.line label {
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  font-size: var(--small);
}
input:not([type='checkbox']),
select {
  padding: 0.35rem 0.55rem;
}
fieldset {
  border: 0;
  margin: 0.7rem 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.3rem 0.6rem;
}
legend {
  padding: 0 0 0.2rem;
}
fieldset label {
  display: flex;
  gap: 0.5rem;
  align-items: baseline;
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: 0.3rem 0.6rem;
  font-size: var(--small);
}
fieldset label.chosen {
  border-color: var(--hand);
  background: var(--hand-wash);
}
button.link {
  border: 0;
  background: none;
  padding: 0 0.3rem;
  color: var(--hand);
  text-decoration: underline;
}
.fine {
  margin: 0.5rem 0;
}
.save input {
  width: 9rem;
}
button {
  border: 1px solid var(--line-strong);
  border-radius: 8px;
  background: var(--paper);
  padding: 0.35rem 0.8rem;
}
.main {
  border-color: var(--hand);
  background: var(--hand);
  color: var(--paper);
}
</style>
