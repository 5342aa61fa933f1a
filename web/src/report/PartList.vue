<script setup lang="ts">
/** The parts of the report in their order: moved, removed, added; own text is written where it stands. */
import { computed, nextTick, ref, watch } from 'vue'
import AddChoice from '@/uses/AddChoice.vue'
import KeptText from './KeptText.vue'
import type { Part, Report } from './useReport'
import { moved } from './useReport'

const props = defineProps<{ parts: readonly Part[]; offered: Report['parts']; /** Whether changes are on their way. */ underWay: boolean }>()
const emit = defineEmits<{ change: [parts: Part[]] }>()
const list = ref<HTMLElement>()
/** As it is from the moment it is changed; what the server has by then takes its place. */
const shown = ref<Part[]>([])
watch(
  () => [props.parts, props.underWay] as const,
  ([parts, underWay]) => {
    if (!underWay) shown.value = [...parts]
  },
  { immediate: true },
)

const title = (part: Part) => props.offered.find((item) => item.key === part.part)?.title ?? part.part
const name = (part: Part, i: number) => (part.part === 'text' ? `own text ${shown.value.slice(0, i + 1).filter((item) => item.part === 'text').length}` : title(part))
const addable = computed(() => [
  { value: '', label: 'put a part back …' },
  ...props.offered.filter((item) => item.key !== 'text' && !shown.value.some((part) => part.part === item.key)).map((item) => ({ value: item.key, label: item.title })),
])

function change(parts: Part[]) {
  shown.value = parts
  emit('change', parts)
}
async function move(i: number, by: number) {
  const to = i + by
  if (to < 0 || to >= shown.value.length) return
  change(moved(shown.value, i, by))
  await nextTick()
  const buttons = list.value?.children[to]?.querySelectorAll<HTMLButtonElement>('button.move')
  const wanted = buttons?.[by < 0 ? 0 : 1]
  ;(wanted?.disabled ? buttons?.[by < 0 ? 1 : 0] : wanted)?.focus()
}
async function leaveOut(i: number) {
  change(shown.value.filter((_, k) => k !== i))
  await nextTick()
  list.value?.children[Math.min(i, shown.value.length - 1)]?.querySelector<HTMLButtonElement>('button.out')?.focus()
}
const add = (key: string) => change([...shown.value, { part: key as Part['part'], text: null }])
/** An own text that has nothing in it yet: it is a part once something is written. */
const isBegun = ref(false)
const begun = ref<{ focus: () => void }>()
async function addText() {
  isBegun.value = true
  await nextTick()
  begun.value?.focus()
}
function begin(text: string) {
  if (!text.trim()) return
  isBegun.value = false
  change([...shown.value, { part: 'text', text }])
}
const write = (i: number, text: string) => change(text.trim() ? shown.value.map((part, k) => (k === i ? { ...part, text } : part)) : shown.value.filter((_, k) => k !== i))
</script>

<template>
  <ol ref="list" class="parts" aria-label="Parts in their order">
    <li v-for="(part, i) in shown" :key="i" :data-report-part="part.part">
      <p>
        <span class="title">{{ title(part) }}</span>
        <button type="button" class="tool move" :disabled="i === 0" :aria-label="`Move ${name(part, i)} up`" @click="move(i, -1)">↑</button>
        <button type="button" class="tool move" :disabled="i === shown.length - 1" :aria-label="`Move ${name(part, i)} down`" @click="move(i, 1)">↓</button>
        <button type="button" class="tool out" :disabled="shown.length === 1" :aria-label="`leave out ${name(part, i)}`" @click="leaveOut(i)">leave out</button>
      </p>
      <KeptText v-if="part.part === 'text'" :text="part.text ?? ''" :label="name(part, i)" :lines="5" @keep="write(i, $event)" />
    </li>
  </ol>
  <KeptText v-if="isBegun" ref="begun" text="" label="new own text" :lines="5" placeholder="what you think of it" @keep="begin" />
  <p class="acts">
    <button type="button" class="tool" :disabled="isBegun" @click="addText">+ own text</button>
    <AddChoice v-if="addable.length > 1" :options="addable" label="Put a part back" @add="add" />
  </p>
  <p class="soft fine">Own text takes Markdown: # heading, *emphasis*, **strong**, lists. Ctrl+Enter sets it; empty, it is left out.</p>
</template>

<style scoped>
.parts {
  margin: 0 0 0.5rem;
}
li p {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem;
  margin: 0.2rem 0;
}
.title {
  flex: 1 1 8rem;
}
.acts {
  display: flex;
  gap: 0.5rem;
}
</style>
