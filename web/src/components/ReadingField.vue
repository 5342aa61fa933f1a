<script setup lang="ts">
/** One quantity: a large field, what it understood, the readings as chips, mean ± u. */
import InputText from 'primevue/inputtext'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { ProblemError, type Schemas } from '@/api/client'
import { useEcho } from '@/composables/useEcho'
import { withUncertainty } from '@/lib/numbers'
import type { UnitFamily } from '@/lib/units'
import ReadingChip from './ReadingChip.vue'

const props = defineProps<{
  field: Schemas['FieldOut']
  family: UnitFamily
  add: (reading: Schemas['ReadingIn']) => Promise<unknown>
}>()
const emit = defineEmits<{ next: []; previous: []; strike: [id: number, reason: string]; restore: [id: number] }>()

const INSTRUMENTS: Record<string, string> = {
  caliper: 'caliper',
  micrometer: 'micrometer',
  tape: 'tape',
  scale: 'scale',
  force_gauge: 'force gauge',
  pressure_gauge: 'pressure gauge',
  permeability_tester: 'permeability tester',
  microscope: 'microscope',
  none: 'counted',
}

const text = ref('')
const refused = ref('')
const underway = ref<string[]>([])
const input = useTemplateRef<{ $el: HTMLInputElement }>('input')
const row = useTemplateRef<HTMLElement>('row')
const { echo, clear } = useEcho(text, () => props.field.key, () => props.family)

const unit = computed(() => (props.family === 'metric' ? props.field.metric_unit : props.field.inch_unit))
const mean = computed(() => {
  const estimate = props.field.estimate
  if (!estimate) return null
  return props.family === 'metric'
    ? withUncertainty(estimate.metric_value, estimate.metric_uncertainty)
    : withUncertainty(estimate.inch_value, estimate.inch_uncertainty)
})
const problem = computed(() => refused.value || (text.value.trim() ? (echo.value?.problem ?? '') : ''))

/**
 * Take what was typed and go on at once, so that fast typing never lands in the wrong field. What is
 * refused comes back here with its reason; the focus returns too, unless the hand is already busy elsewhere.
 */
async function accept() {
  const typed = text.value
  emit('next')
  if (!typed.trim()) return
  text.value = ''
  refused.value = ''
  clear()
  underway.value.push(typed)
  try {
    await props.add({ key: props.field.key, text: typed, family: props.family })
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    if (!text.value) text.value = typed
    await nextTick()
    refused.value = error.message
    const busy = document.activeElement instanceof HTMLInputElement && document.activeElement.value !== ''
    if (!busy) input.value?.$el.focus()
  } finally {
    underway.value.splice(underway.value.indexOf(typed), 1)
  }
}

function onKey(event: KeyboardEvent) {
  if (event.key === 'Enter' && !event.isComposing) {
    event.preventDefault()
    if (event.shiftKey) emit('previous')
    else void accept()
  } else if (event.key === 'ArrowDown') {
    event.preventDefault()
    emit('next')
  } else if (event.key === 'ArrowUp') {
    event.preventDefault()
    emit('previous')
  } else if (event.key === 'Escape') {
    text.value = ''
    refused.value = ''
  } else if (event.key === 'Backspace' && text.value === '') {
    const chips = row.value?.querySelectorAll<HTMLButtonElement>('.chip')
    chips?.[chips.length - 1]?.focus()
  }
}

/** Keep the row clear of the edges, so that what it says under the field is seen too. */
function intoView() {
  row.value?.scrollIntoView?.({ block: 'nearest' })
}

function focus() {
  input.value?.$el.focus()
}
defineExpose({ focus })
</script>

<template>
  <div ref="row" class="row" :data-key="field.key" @focusin="intoView">
    <label class="title" :for="`in-${field.key}`">{{ field.title }}</label>
    <div class="entry">
      <InputText
        :id="`in-${field.key}`"
        ref="input"
        v-model="text"
        class="input"
        autocomplete="off"
        spellcheck="false"
        :invalid="problem !== ''"
        :aria-describedby="`hint-${field.key}`"
        @update:model-value="refused = ''"
        @keydown="onKey"
      />
      <span class="unit soft">{{ unit || 'count' }}</span>
    </div>
    <p class="mean number" title="mean of the readings that stand ± standard uncertainty">
      <template v-if="mean">
        <strong>{{ mean.value }}</strong>
        <span v-if="mean.uncertainty" class="soft"> ± {{ mean.uncertainty }}</span>
        <span class="soft">&nbsp;{{ unit }}</span>
      </template>
      <span v-else class="soft none">not measured</span>
    </p>
    <div class="chips">
      <ReadingChip
        v-for="reading in field.readings"
        :key="reading.id"
        :reading="reading"
        :family="family"
        @strike="emit('strike', reading.id, $event)"
        @restore="emit('restore', reading.id)"
        @leave="focus"
      />
      <span v-for="(typed, i) in underway" :key="`underway-${i}`" class="underway typed">{{ typed }} …</span>
    </div>
    <div :id="`hint-${field.key}`" class="hint" aria-live="polite">
      <p v-if="problem" class="said-wrong">{{ problem }}</p>
      <template v-else-if="text.trim() && echo">
        <p>
          <span class="typed">{{ echo.text }}</span> is {{ echo.metric
          }}<template v-if="echo.inch !== echo.metric"> = {{ echo.inch }}</template>
          <span class="soft"> · Enter takes it</span>
        </p>
        <p v-if="echo.question" class="said-wrong">{{ echo.question }} Enter takes it all the same.</p>
      </template>
      <p v-else class="soft when-focused">
        {{ INSTRUMENTS[field.instrument] ?? field.instrument
        }}<template v-if="unit">, a bare number is {{ unit }}</template>
      </p>
      <p v-for="warning in field.warnings" :key="warning" class="said-wrong">{{ warning }}</p>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 11.5rem 13rem 11rem minmax(0, 1fr);
  align-items: center;
  column-gap: 0.9rem;
  padding: 0.28rem 0.9rem;
  border-top: 1px solid var(--line);
}
.row {
  scroll-margin-block: 5.5rem;
}
.row:focus-within {
  background: var(--hand-wash);
}
.title {
  cursor: pointer;
}
.title::first-letter {
  text-transform: uppercase;
}
.entry {
  position: relative;
}
.input {
  width: 100%;
  font-family: var(--typed);
  font-size: 1.02rem;
  padding-right: 3.6rem;
  min-height: 2.5rem;
}
.unit {
  position: absolute;
  right: 0.7rem;
  top: 50%;
  transform: translateY(-50%);
  pointer-events: none;
  font-size: 0.85rem;
}
.mean {
  margin: 0;
  font-size: 0.95rem;
}
.none {
  font-family: var(--body);
  font-size: 0.85rem;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  min-width: 0;
}
.hint {
  grid-column: 2 / -1;
  font-size: 0.86rem;
}
.hint p {
  margin: 0.15rem 0 0;
}
.underway {
  border: 1px dashed var(--line-strong);
  border-radius: 6px;
  padding: 0.15rem 0.5rem;
  color: var(--ink-soft);
}
.when-focused {
  display: none;
}
.row:focus-within .when-focused {
  display: block;
}
</style>
