<script setup lang="ts">
/** Before cutting: what can be learned only now, the cautions, and the record of the cut. */
import { computed, ref, toRef, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { ProblemError } from '@/api/client'
import { catalogue } from '@/catalogue/catalogue'
import { useBenchChanges, useSheet } from '@/sample/useSheet'
import { stationOfKey } from '@/sample/stations'
import { clock } from '@/shared/clock'

const props = defineProps<{ sampleId: number }>()
const router = useRouter()
const sampleId = toRef(props, 'sampleId')
const sheet = useSheet(sampleId)
const changes = useBenchChanges(sampleId)
const method = ref('roller cutter')
/** Another way to cut it, in one's own words. */
const OTHER = 'other'
const own = ref('')
const note = ref('')
const said = ref('')
const sure = ref(false)
const button = useTemplateRef<HTMLButtonElement>('button')

const missing = computed(() => sheet.data.value?.before_cut.missing ?? [])
const cut = computed(() => sheet.data.value?.before_cut.cut ?? null)
const methods = computed(() => Object.entries(catalogue().cut_methods))

function to(key: string) {
  void router.push({ name: stationOfKey(key, sheet.data.value), query: { field: key } })
}

async function record() {
  said.value = ''
  if (missing.value.length && !sure.value) {
    said.value = 'Something can be measured only now and is still missing: measure it, or say that you cut all the same.'
    return
  }
  try {
    const how = method.value === OTHER ? own.value : method.value
    if (!how.trim()) {
      said.value = 'Say in a few words how it was cut open.'
      return
    }
    await changes.cut({ method: how, note: note.value })
    note.value = ''
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    said.value = error.message
    button.value?.focus()
  }
}
</script>

<template>
  <div class="before-cut scrolls">
    <section class="card missing">
      <h2>{{ cut ? 'Not measured before the cut' : 'Only now, and still missing' }}</h2>
      <ul v-if="missing.length">
        <li v-for="item in missing" :key="item.key">
          <button type="button" class="link sentence" @click="to(item.key)">{{ item.title }}</button>
        </li>
      </ul>
      <p v-else class="ready">
        Everything that can be learned only from the whole filter is there, or is marked as why not.
      </p>
      <p v-if="missing.length" class="soft fine">
        What cannot be had is an answer too: type <span class="typed">could not be found</span> or
        <span class="typed">not applicable</span> into its field.
      </p>
    </section>
    <section class="card">
      <h2>Before you cut</h2>
      <ul class="cautions bullets small">
        <li v-for="caution in catalogue().cautions" :key="caution">{{ caution }}</li>
      </ul>
    </section>
    <section class="card cut">
      <template v-if="cut">
        <h2>Cut open</h2>
        <p class="done sentence">
          {{ cut.method }}<template v-if="cut.at">, {{ clock(cut.at) }}</template
          ><template v-if="cut.note">: {{ cut.note }}</template>
        </p>
        <p class="soft fine">If it was not, <kbd>Ctrl+Z</kbd> takes it back while nothing was done after it.</p>
      </template>
      <form v-else @submit.prevent="record">
        <h2>Record the cut</h2>
        <fieldset>
          <legend class="unseen">Cutting method</legend>
          <label v-for="[name, words] in methods" :key="name" :class="{ chosen: method === name }">
            <input v-model="method" type="radio" name="method" :value="name" />
            <span><strong>{{ name }}</strong> <span class="soft">{{ words }}</span></span>
          </label>
          <label :class="{ chosen: method === OTHER }">
            <input v-model="method" type="radio" name="method" :value="OTHER" />
            <span class="own"><strong>other</strong> <input v-model="own" aria-label="How it was cut open" placeholder="in your own words" autocomplete="off" @focus="method = OTHER" /></span>
          </label>
        </fieldset>
        <label class="note row">note <input v-model="note" autocomplete="off" placeholder="where it was cut, what fell out" /></label>
        <label v-if="missing.length" class="sure row">
          <input v-model="sure" type="checkbox" /> I cut all the same; {{ missing.length }}
          {{ missing.length === 1 ? 'thing' : 'things' }} will stay unknown
        </label>
        <button ref="button" type="submit" class="record strong">Cut: record it now</button>
        <p v-if="said" class="said-wrong" role="alert">{{ said }}</p>
      </form>
    </section>
  </div>
</template>

<style scoped>
.before-cut {
  height: 100%;
  padding: 0.7rem 0.8rem 2rem;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.7rem;
  align-content: start;
}
.card {
  padding: 0.6rem 0.9rem 0.8rem;
}
.missing ul {
  margin: 0.3rem 0;
  columns: 2;
  column-gap: 1rem;
}
.missing li {
  break-inside: avoid;
}
.link {
  padding: 0.14rem 0;
  color: var(--hand);
  text-decoration: underline;
}
.cautions {
  margin: 0.3rem 0 0;
  line-height: 1.4;
}
.cut {
  grid-column: 1 / -1;
}
fieldset {
  border: 0;
  margin: 0.4rem 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.4rem;
}
fieldset label {
  display: flex;
  gap: 0.5rem;
  align-items: baseline;
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: 0.35rem 0.6rem;
  font-size: var(--small);
}
fieldset label.chosen {
  border-color: var(--hand);
  background: var(--hand-wash);
}
.own {
  flex: 1;
  display: flex;
  gap: 0.5rem;
}
.own input {
  flex: 1;
  padding: 0.1rem 0.5rem;
}
.note,
.sure {
  margin: 0.4rem 0;
}
.note input {
  flex: 1;
  padding: 0.3rem 0.55rem;
}
.record {
  border: 1px solid var(--hand);
  background: var(--hand);
  color: var(--paper);
  border-radius: 8px;
  padding: 0.45rem 1.2rem;
}
.done {
  font-size: 1.1rem;
  margin: 0.3rem 0;
}
.fine {
  margin: 0.2rem 0 0;
}
.ready {
  margin: 0.3rem 0 0;
}
</style>
