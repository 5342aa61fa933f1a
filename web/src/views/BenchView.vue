<script setup lang="ts">
/** The bench: readings of the sample in hand, part by part, everything by keyboard. */
import { computed, nextTick, ref, toRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { ProblemError, type Schemas } from '@/api/client'
import ReadingField from '@/components/ReadingField.vue'
import { useKeys } from '@/composables/useKeys'
import { useReadingChanges, useSheet } from '@/composables/useSheet'
import { usePreferences } from '@/stores/preferences'

const props = defineProps<{ sampleId: number }>()
const route = useRoute()
const preferences = usePreferences()
const sampleId = toRef(props, 'sampleId')
const sheet = useSheet(sampleId)
const changes = useReadingChanges(sampleId)
const trouble = ref('')

const parts = computed(() => sheet.data.value?.parts ?? [])
const order = computed(() => parts.value.flatMap((part) => part.fields.map((field) => field.key)))
const generalWarnings = computed(() => {
  const placed = new Set(parts.value.flatMap((part) => part.fields.flatMap((field) => field.warnings)))
  return (sheet.data.value?.analysis.warnings ?? []).filter((warning) => !placed.has(warning.message))
})

function measured(part: Schemas['PartOut']): number {
  return part.fields.filter((field) => field.estimate).length
}

/** Move to a field; the row it is in scrolls into view with it. */
function focusField(key: string) {
  const place = order.value.indexOf(key)
  const row = document.querySelector(`[data-key="${CSS.escape(key)}"]`)
  row?.scrollIntoView({ block: 'center' })
  if (place >= 0) row?.querySelector('input')?.focus()
}

function step(key: string, by: number) {
  const next = order.value[order.value.indexOf(key) + by]
  if (next) focusField(next)
}

function jump(part: string) {
  const first = parts.value.find((candidate) => candidate.key === part)?.fields[0]
  if (first) focusField(first.key)
  else document.getElementById(`part-${part}`)?.scrollIntoView()
}

async function guarded(change: Promise<unknown>) {
  trouble.value = ''
  try {
    await change
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    trouble.value = error.message
  }
}

const never = () => false
useKeys([
  { keys: 'Enter', does: 'take the reading and go to the next field (with Shift to the one before)', matches: never, run: never },
  { keys: '↓ ↑', does: 'next field, field before', matches: never, run: never },
  { keys: 'Backspace', does: 'in an empty field: go to its readings (← → between them, Esc back)', matches: never, run: never },
  { keys: 'Delete', does: 'on a reading: strike it out; Enter on a struck one restores it', matches: never, run: never },
  { keys: 'Esc', does: 'empty the field', matches: never, run: never },
])

watch(
  [() => route.query.field, () => sheet.isSuccess.value],
  async ([key, ready]) => {
    if (!ready || typeof key !== 'string') return
    await nextTick()
    focusField(key)
  },
  { immediate: true },
)
</script>

<template>
  <div class="bench">
    <nav class="parts" aria-label="Parts">
      <ol>
        <li v-for="part in parts" :key="part.key">
          <button type="button" @click="jump(part.key)">
            <span>{{ part.title }}</span>
            <span class="number soft">{{ measured(part) }}/{{ part.fields.length }}</span>
          </button>
        </li>
      </ol>
    </nav>
    <div class="sheet">
      <p v-if="trouble" class="said-wrong note" role="alert">{{ trouble }}</p>
      <ul v-if="generalWarnings.length" class="note warnings">
        <li v-for="warning in generalWarnings" :key="warning.code + warning.where">{{ warning.message }}</li>
      </ul>
      <p v-if="sheet.isPending.value" class="soft note">Fetching the sheet …</p>
      <section v-for="part in parts" :id="`part-${part.key}`" :key="part.key" class="part">
        <h2>
          {{ part.title }} <span v-if="part.note" class="soft">{{ part.note }}</span>
        </h2>
        <ReadingField
          v-for="field in part.fields"
          :key="field.key"
          :field="field"
          :family="preferences.family"
          :add="changes.add.mutateAsync"
          @next="step(field.key, 1)"
          @previous="step(field.key, -1)"
          @strike="(id, reason) => guarded(changes.strikeOut.mutateAsync({ id, reason }))"
          @restore="(id) => guarded(changes.restore.mutateAsync(id))"
        />
      </section>
    </div>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template-columns: 11.5rem minmax(0, 1fr);
}
.parts {
  border-right: 1px solid var(--line);
  overflow-y: auto;
  padding: 0.7rem 0.4rem;
}
.parts ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.parts button {
  width: 100%;
  display: flex;
  justify-content: space-between;
  gap: 0.5rem;
  border: 0;
  background: none;
  border-radius: 6px;
  padding: 0.28rem 0.5rem;
  text-align: left;
  cursor: pointer;
  font-size: 0.9rem;
}
.parts button:hover {
  background: var(--paper);
}
.sheet {
  overflow-y: auto;
  padding: 0.8rem 1rem 4rem;
  scroll-behavior: auto;
}
.part {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 10px;
  margin-bottom: 0.9rem;
  overflow: hidden;
}
.part h2 {
  padding: 0.5rem 0.9rem;
}
.part h2 span {
  font-weight: 400;
  font-size: 0.9rem;
  margin-left: 0.4rem;
}
.note {
  margin: 0 0 0.8rem;
}
.warnings li::first-letter {
  text-transform: uppercase;
}
.warnings {
  color: var(--rust);
  padding-left: 0;
  list-style: none;
  font-size: 0.9rem;
}
</style>
