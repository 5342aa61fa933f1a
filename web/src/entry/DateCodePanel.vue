<script setup lang="ts">
/** Date code as read by rules, and how to state a rule; a date is taken only on request. */
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, useTemplateRef, nextTick } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { catalogue } from '@/catalogue/catalogue'
import type { BenchChanges } from '@/sample/useSheet'
import { useRefusal } from '@/shared/useRefusal'

const props = defineProps<{ sampleId: number; code: string; made: string; revision: number; maker: string; changes: BenchChanges }>()

const known = useQuery({
  queryKey: computed(() => queryKeys.dateCode(props.sampleId)),
  queryFn: () => unwrap(client.GET('/api/samples/{sample_id}/date-code', { params: { path: { sample_id: props.sampleId } } })),
})
const readings = computed(() => (known.data.value?.code === props.code ? known.data.value.readings : []))
const { refused, guarded } = useRefusal()
const stating = ref(false)
const typed = ref({ name: '', pattern: '', maker: '' })
const first = useTemplateRef<HTMLInputElement>('first')

const take = (iso: string) => guarded(() => props.changes.setDetail('sample.made', { text: iso, family: 'metric' }, props.revision))

async function state() {
  stating.value = true
  typed.value.maker = props.maker
  await nextTick()
  first.value?.focus()
}

async function add() {
  const body = { ...typed.value, maker: typed.value.maker || null }
  const path = { sample_id: props.sampleId }
  if (!(await guarded(() => unwrap(client.POST('/api/samples/{sample_id}/date-code/rules', { params: { path }, body }))))) return
  typed.value = { name: '', pattern: '', maker: '' }
  stating.value = false
}

const remove = (id: number) => guarded(() => unwrap(client.DELETE('/api/date-code-rules/{rule_id}', { params: { path: { rule_id: id } }, body: {} })))
</script>

<template>
  <div class="codes small" data-key="date-code">
    <p v-for="item in readings" :key="item.rule" class="reading row wrap">
      <span>by “{{ item.rule }}”: {{ item.words }}<template v-if="item.decade_before">, or ten years before</template></span>
      <button v-if="item.iso !== made" type="button" class="tool" @click="take(item.iso)">made on {{ item.iso }}</button>
      <button v-if="item.decade_before && item.decade_before !== made" type="button" class="tool" @click="take(item.decade_before)">made on {{ item.decade_before }}</button>
    </p>
    <p v-if="known.data.value?.says && known.data.value.code === code" class="said-wrong">{{ known.data.value.says }}</p>
    <button v-if="!stating" type="button" class="tool" @click="state">Rules of date codes …</button>
    <form v-else @submit.prevent="add" @keydown.escape.stop="stating = false">
      <label class="stack">rule <input ref="first" v-model="typed.name" placeholder="its name" autocomplete="off" /></label>
      <label class="stack">pattern <input v-model="typed.pattern" class="typed" placeholder="{Y}{DDD}" autocomplete="off" spellcheck="false" /></label>
      <label class="stack">of maker <input v-model="typed.maker" placeholder="anybody’s" autocomplete="off" /></label>
      <span class="acts flush"><button type="submit" class="tool">Save the rule</button> <button type="button" class="tool" @click="stating = false">Close</button></span>
      <dl class="soft fine flush">
        <template v-for="(means, token) in catalogue().date_tokens" :key="token"><dt class="typed">{{ token }}</dt><dd>{{ means }}</dd></template>
      </dl>
      <ul v-if="known.data.value?.rules.length" class="bullets flush">
        <li v-for="rule in known.data.value.rules" :key="rule.id">
          <strong>{{ rule.name }}</strong> <span class="typed">{{ rule.pattern }}</span><template v-if="rule.maker"> of {{ rule.maker }}</template>
          <button type="button" class="tool" @click="remove(rule.id)">Remove</button>
        </li>
      </ul>
    </form>
    <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
  </div>
</template>

<style scoped>
.codes {
  margin: 0.1rem 0 0.3rem 11.3rem;
}
p {
  margin: 0.1rem 0;
}
.reading {
  gap: 0.3rem 0.6rem;
}
form {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0.4rem;
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: 0.5rem;
}
label {
  gap: 0.1rem;
}
label input {
  width: 100%;
}
.acts,
dl,
ul {
  grid-column: 1 / -1;
}
dl {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0 0.5rem;
}
</style>
