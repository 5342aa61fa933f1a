<script setup lang="ts">
/** A whole group of holes typed in one line, such as 8 x 5.6 mm. */
import InputText from 'primevue/inputtext'
import { ref, toRef } from 'vue'
import { client, ProblemError, type Schemas } from '@/api/client'
import { catalogue } from '@/catalogue/catalogue'
import { useEcho } from './useEcho'
import { typedId, useTyped } from '@/shared/useTyped'
import type { UnitFamily } from '@/catalogue/units'

const props = defineProps<{
  placement: 'inlet' | 'centre_tube'
  title: string
  sampleId: number
  family: UnitFamily
  add: (holes: Schemas['HolesIn']) => Promise<unknown>
}>()
const emit = defineEmits<{ next: [isArrow?: boolean]; previous: []; here: [] }>()

/** Those with sizes that the examples beside them do not show. */
const shapes = catalogue().hole_shapes.filter((shape) => !['round', 'slot', 'outline'].includes(shape)).join(', ')
const idOfField = () => typedId(props.sampleId, `add/${props.placement}`)
const { text, why, comeBack, onFocusOut } = useTyped(idOfField, () => void take())
const underway = ref<string[]>([])
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

/** Take the line at once and stay, for the next group; what is refused comes back with its reason. */
async function take() {
  const typed = text.value
  const at = idOfField()
  text.value = ''
  clear()
  underway.value.push(typed)
  try {
    await props.add(holes(typed))
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    comeBack(at, typed, error.message)
  } finally {
    underway.value.splice(underway.value.indexOf(typed), 1)
  }
}

function accept() {
  if (text.value.trim()) void take()
  else emit('next')
}

function onKey(event: KeyboardEvent) {
  if (event.isComposing) return
  if (event.key === 'Enter' || (event.key === 'Tab' && !event.shiftKey && text.value.trim())) {
    event.preventDefault()
    if (event.shiftKey) emit('previous')
    else accept()
  } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    event.preventDefault()
    if (event.key === 'ArrowDown') emit('next', true)
    else emit('previous')
  } else if (event.key === 'Escape') {
    text.value = ''
  }
}
</script>

<template>
  <div class="holes" :data-key="`holes.${placement}`" data-stop :data-unsaved="text.trim() ? title : undefined" @focusin="$emit('here')" @focusout="onFocusOut">
    <label :for="`add-${placement}`">{{ title }}</label>
    <InputText
      :id="`add-${placement}`"
      v-model="text"
      class="input typed-face"
      autocomplete="off"
      spellcheck="false"
      :placeholder="family === 'metric' ? '8 x 5.6 mm' : '8 x 7/32 in'"
      :invalid="why !== ''"
      @keydown="onKey"
    />
    <div class="hint small" aria-live="polite">
      <p v-if="underway.length" class="typed soft">{{ underway.join(', ') }} …</p>
      <p v-if="why || (text.trim() && echo?.problem)" class="said-wrong">{{ why || echo?.problem }}</p>
      <template v-else-if="text.trim() && echo">
        <p>{{ echo.metric }} <span class="soft">=</span> {{ echo.inch }} <span class="soft">· Enter takes it</span></p>
        <p v-if="echo.question" class="said-wrong">{{ echo.question }}</p>
      </template>
      <p v-else class="soft help">
        count x size; a shape before the size: <span class="typed">2 x slot 9 x 4</span>, {{ shapes }}, <span class="typed">1 x outline 0 0, 4 0, 4 3.5</span>; at the end <span class="typed">on 46 mm</span> for the
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
  min-height: 2.5rem;
}
@media (pointer: coarse) {
  .input {
    min-height: 2.75rem;
  }
}
.hint {
  grid-column: 2;
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
