<script setup lang="ts">
/** A whole group of holes typed in one line, such as 8 x 5.6 mm. */
import InputText from 'primevue/inputtext'
import { ref, toRef, useTemplateRef } from 'vue'
import { client, ProblemError, type Schemas } from '@/api/client'
import { useEcho } from './useEcho'
import type { UnitFamily } from '@/catalogue/units'

const props = defineProps<{
  placement: 'inlet' | 'centre_tube'
  title: string
  sampleId: number
  family: UnitFamily
  add: (holes: Schemas['HolesIn']) => Promise<unknown>
}>()
const emit = defineEmits<{ next: []; previous: []; here: [] }>()

const text = ref('')
const refused = ref('')
const input = useTemplateRef<{ $el: HTMLInputElement }>('input')
const family = toRef(props, 'family')

function holes(typed: string): Schemas['HolesIn'] {
  return { text: typed, family: props.family, placement: props.placement }
}

const { echo, clear } = useEcho(
  text,
  (typed) =>
    client.POST('/api/samples/{sample_id}/holes/echo', {
      params: { path: { sample_id: props.sampleId } },
      body: holes(typed),
    }),
  () => family.value,
)

async function accept() {
  const typed = text.value
  if (!typed.trim()) return emit('next')
  refused.value = ''
  try {
    await props.add(holes(typed))
    text.value = ''
    clear()
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    refused.value = error.message
    input.value?.$el.focus()
  }
}

function onKey(event: KeyboardEvent) {
  if (event.isComposing) return
  if (event.key === 'Enter' || (event.key === 'Tab' && !event.shiftKey && text.value.trim())) {
    event.preventDefault()
    if (event.shiftKey) emit('previous')
    else void accept()
  } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    event.preventDefault()
    if (event.key === 'ArrowDown') emit('next')
    else emit('previous')
  } else if (event.key === 'Escape') {
    if (!text.value) input.value?.$el.blur()
    text.value = refused.value = ''
  }
}
</script>

<template>
  <div class="holes" :data-key="`holes.${placement}`" data-stop="reading" @focusin="$emit('here')">
    <label :for="`add-${placement}`">{{ title }}</label>
    <InputText
      :id="`add-${placement}`"
      ref="input"
      v-model="text"
      class="input"
      autocomplete="off"
      spellcheck="false"
      :placeholder="family === 'metric' ? '8 x 5.6 mm' : '8 x 7/32 in'"
      :invalid="refused !== ''"
      @keydown="onKey"
    />
    <div class="hint" aria-live="polite">
      <p v-if="refused || (text.trim() && echo?.problem)" class="said-wrong">{{ refused || echo?.problem }}</p>
      <template v-else-if="text.trim() && echo">
        <p>{{ echo.metric }} <span class="soft">=</span> {{ echo.inch }} <span class="soft">· Enter takes it</span></p>
        <p v-if="echo.question" class="said-wrong">{{ echo.question }}</p>
      </template>
      <p v-else class="soft help">
        count x size; a shape before the size: <span class="typed">2 x slot 9 x 4</span>, ellipse, d, rectangle,
        <span class="typed">1 x outline 0 0, 4 0, 4 3.5</span>; at the end <span class="typed">on 46 mm</span> for the
        circle, <span class="typed">50 % open</span> where tabs cover part
      </p>
    </div>
  </div>
</template>

<style scoped>
.holes {
  display: grid;
  grid-template-columns: 9.2rem minmax(0, 1fr);
  column-gap: 0.9rem;
  align-items: center;
  padding: 0.35rem 0.9rem;
  border-top: 1px solid var(--line);
  scroll-margin-block: 5rem;
}
.holes:focus-within {
  background: var(--hand-wash);
}
.input {
  max-width: 22rem;
  font-family: var(--typed);
  min-height: 2.5rem;
}
.hint {
  grid-column: 2;
  font-size: 0.85rem;
}
.hint p {
  margin: 0.15rem 0 0;
}
.help {
  display: none;
}
.holes:focus-within .help {
  display: block;
}
</style>
