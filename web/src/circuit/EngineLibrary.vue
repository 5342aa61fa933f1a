<script setup lang="ts">
/** Engines saved for other studies, and invented ones to begin with; taking one shows first what it would change. */
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { ProblemError, type Schemas } from '@/api/client'
import type { UnitFamily } from '@/catalogue/units'
import { useRefusal } from '@/shared/useRefusal'

const props = defineProps<{
  engines: readonly Schemas['LibraryEngineOut'][]
  family: UnitFamily
  preview: (name: string) => Promise<Schemas['EngineLinesOut']>
  take: (body: Schemas['EngineIn'], revision: number) => Promise<unknown>
  save: () => Promise<unknown>
  remove: (id: number) => Promise<unknown>
}>()
const { refused: refusalText, guarded: run } = useRefusal()

const asked = ref<Schemas['EngineLinesOut'] | null>(null)
/** Lines that stay as they are: what was stated for this study stays, unless it is chosen otherwise. */
const keep = ref<string[]>([])
const table = useTemplateRef<HTMLElement>('table')

async function look(name: string) {
  await run(async () => {
    asked.value = await props.preview(name)
    keep.value = asked.value.lines.filter((line) => line.is_own).map((line) => line.key)
  })
  await nextTick()
  table.value?.querySelector<HTMLElement>('input, button')?.focus()
  table.value?.scrollIntoView({ block: 'nearest' })
}

async function takeIt() {
  const { name, revision } = asked.value!
  if (await run(() => props.take({ name, keep: keep.value }, revision))) asked.value = null
  else await lookAgain(name)
}

/** After a refusal because another window was first, the present state is shown, and the choices stay. */
async function lookAgain(name: string) {
  try {
    asked.value = await props.preview(name)
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    return // its reason is shown already
  }
  const own = asked.value.lines.filter((line) => line.is_own).map((line) => line.key)
  keep.value = [...new Set([...keep.value, ...own])]
}

const keepsAll = computed(() => keep.value.length === asked.value?.lines.length)

function keepAll() {
  keep.value = keepsAll.value ? [] : asked.value!.lines.map((line) => line.key)
}

const now = (line: Schemas['EngineLineOut']) => line.now_typed ?? (props.family === 'metric' ? line.now_metric : line.now_inch) ?? 'not stated'
const then = (line: Schemas['EngineLineOut']) => (props.family === 'metric' ? line.then_metric : line.then_inch) ?? 'not stated'
</script>

<template>
  <section class="panel" aria-label="Engine library">
    <div class="top row spread">
      <h2>Engine library</h2>
      <button type="button" class="tool" @click="run(() => props.save())">Save this engine</button>
    </div>
    <p v-if="refusalText" class="said-wrong" role="alert">{{ refusalText }}</p>
    <form v-if="asked" ref="table" class="lines" data-library="lines" @submit.prevent="takeIt" @keydown.escape="asked = null">
      <p v-if="!asked.lines.length" class="fine">“{{ asked.name }}” would change nothing: every line is the same already.</p>
      <template v-else>
        <p class="fine">What “{{ asked.name }}” would change. Tick what is to stay as it is; the rest is marked “from the library”.</p>
        <table class="wide small">
          <thead>
            <tr>
              <th>
                <label><input type="checkbox" :checked="keepsAll" :indeterminate="keep.length > 0 && !keepsAll" @change="keepAll" /> keep</label>
              </th>
              <th><span class="unseen">what</span></th>
              <th>now</th>
              <th>from the library</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in asked.lines" :key="line.key" :data-line="line.key">
              <td><input v-model="keep" type="checkbox" :value="line.key" :aria-label="`Keep ${line.title}: ${now(line)}`" /></td>
              <td>{{ line.title }}</td>
              <td :class="{ chosen: keep.includes(line.key), soft: !keep.includes(line.key) }">{{ now(line) }}</td>
              <td :class="{ chosen: !keep.includes(line.key), soft: keep.includes(line.key) }">{{ then(line) }}</td>
            </tr>
          </tbody>
        </table>
      </template>
      <div class="acts row spread">
        <button v-if="asked.lines.length" type="submit" class="tool">Take the engine</button>
        <button type="button" class="tool" @click="asked = null">Leave everything as it is</button>
      </div>
    </form>
    <ul class="small">
      <li v-for="item in engines" :key="`${item.id}-${item.name}`">
        <button type="button" class="link strong" :data-engine="item.name" @click="look(item.name)">{{ item.name }} …</button>
        <span class="soft"> {{ item.id === null ? 'invented, to begin with' : 'saved' }} · {{ item[family] }}</span>
        <button v-if="item.id !== null" type="button" class="link strong" :aria-label="`Remove ${item.name} from the library`" @click="run(() => props.remove(item.id!))">remove</button>
      </li>
    </ul>
    <p class="soft fine">Choosing one shows what it would change. The study gets its own copy; undo brings back what was there.</p>
  </section>
</template>

<style scoped>
.lines {
  border: 1px solid var(--hand);
  border-radius: 8px;
  padding: 0.4rem 0.6rem;
}
th {
  color: var(--ink-soft);
}
td {
  border-top: 1px solid var(--line);
  padding: 0.08rem 0.5rem 0.08rem 0;
}
.chosen {
  font-weight: 600;
}
ul {
  margin: 0.2rem 0;
}
li {
  padding: 0.12rem 0;
  border-bottom: 1px solid var(--line);
}
.link {
  margin-right: 0.3rem;
}
</style>
