<script setup lang="ts">
/** Something seen: pictured choices, own words, and the views of practitioners one key away. */
import { computed, nextTick, ref, watch } from 'vue'
import CopiedMark from './CopiedMark.vue'
import PractitionerViews from './PractitionerViews.vue'
import { useCopied } from '@/sample/copies'
import type { Schemas } from '@/api/client'
import { DEVICE_GAP_MS } from '@/shared/useKeys'
import { useRefusal } from '@/shared/useRefusal'
import { typedId, useTyped } from '@/shared/useTyped'
import { OBSERVATION_PICTURES } from '@/catalogue/observationPictures'

const props = defineProps<{
  observation: Schemas['ObservationOut']
  sampleId: number
  value: string | null
  set: (key: string, text: string | null) => Promise<unknown>
}>()
const emit = defineEmits<{ next: [isArrow?: boolean]; previous: []; here: [] }>()

const { refused, guarded } = useRefusal()
const viewsOpen = ref(false)
const idOfWords = () => typedId(props.sampleId, `words/${props.observation.key}`)
const { text: words, why, comeBack, onFocusOut } = useTyped(idOfWords, () => void storeWords())
const pictures = computed(() => OBSERVATION_PICTURES[props.observation.key] ?? {})

const things = [`observations/${props.observation.key}`]
const { open: copied } = useCopied(() => things)

/** The choice as the hand left it: the next one may follow before this one is answered. */
const held = ref(props.value)
/** Choices that hold, one or several. */
const APART = '; '
const parts = computed(() => (held.value === null ? [] : props.observation.several ? held.value.split(APART) : [held.value]))
const holds = (value: string) => parts.value.includes(value)
const isChoice = (value: string) => props.observation.choices.some((choice) => choice.value === value)
const known = computed(() => parts.value.some(isChoice))
/** Said in other words than the choices. */
const others = computed(() => parts.value.filter((value) => !isChoice(value)).join(APART))

/** Choose a choice, or take it back; of several, the first says that none of the others holds. */
function toggle(value: string) {
  const first = props.observation.choices[0]!.value
  if (!props.observation.several) return choose(holds(value) ? null : value)
  const without = parts.value.filter((part) => part !== value && (value === first ? !isChoice(part) : part !== first))
  return choose([...without, ...(holds(value) ? [] : [value])].join(APART) || null)
}
let underway = 0
watch(
  () => props.value,
  (value) => {
    if (!underway) held.value = value
  },
)

async function choose(text: string | null) {
  if (text === held.value) return
  held.value = text
  words.value = ''
  underway += 1
  const taken = await guarded(() => props.set(props.observation.key, text))
  await nextTick() // the answer is on its way into this field
  underway -= 1
  if (!underway) held.value = props.value
  return taken
}

/** Own words: taken as a reading is, from where they were typed. */
async function storeWords() {
  const typed = words.value
  const at = idOfWords()
  const stored = choose(props.observation.several ? [...parts.value, typed.trim()].join(APART) : typed)
  if ((await stored) !== false) return
  comeBack(at, typed, refused.value)
  refused.value = ''
}

/** Digits typed so fast that an instrument may have sent them; what they mean is settled after a pause, or by the next key. */
let burst = ''
let pause: ReturnType<typeof setTimeout> | undefined

/** Choose what was typed: one digit, or of several choices each digit in turn. A number with a point is a reading gone astray. */
function settle(buttons: readonly HTMLButtonElement[]) {
  clearTimeout(pause)
  const places = [...burst].map((key) => (/\d/.test(key) ? Number(key) - 1 : -1))
  burst = ''
  const { choices, several } = props.observation
  if ((places.length > 1 && !several) || places.some((place) => !choices[place])) return
  for (const place of places) {
    buttons[place]?.focus()
    void (several ? toggle(choices[place]!.value) : choose(choices[place]!.value))
  }
}

/** Pick the next or previous choice, as on any group of radio buttons; from none, the first or the last. */
function turn(buttons: HTMLButtonElement[], by: 1 | -1) {
  const { choices } = props.observation
  const now = choices.findIndex((choice) => choice.value === held.value)
  const place = now < 0 ? (by > 0 ? 0 : choices.length - 1) : (now + by + choices.length) % choices.length
  buttons[place]?.focus()
  void choose(choices[place]!.value)
}

/** Of several, arrows only go from one to the next: what holds is said by its number or by Space. */
function go(buttons: HTMLButtonElement[], by: 1 | -1) {
  const here = buttons.indexOf(document.activeElement as HTMLButtonElement)
  buttons[(here + by + buttons.length) % buttons.length]?.focus()
}

function onKey(event: KeyboardEvent) {
  const buttons = [...((event.currentTarget as HTMLElement).querySelectorAll<HTMLButtonElement>('[role="radio"], [role="checkbox"]'))]
  const move = props.observation.several ? go : turn
  if (/^[\d.,]$/.test(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey) {
    event.preventDefault()
    burst += event.key
    clearTimeout(pause)
    pause = setTimeout(() => settle(buttons), DEVICE_GAP_MS)
    return
  }
  settle(buttons)
  if (event.ctrlKey || event.altKey || event.metaKey) return // a key of the frame, such as Ctrl+→ to the next station
  let handled = true
  if (event.key === 'ArrowRight') move(buttons, 1)
  else if (event.key === 'ArrowLeft') move(buttons, -1)
  else if (event.key === 'ArrowDown') emit('next', true)
  else if (event.key === 'ArrowUp') emit('previous')
  else if (event.key === 'Enter' && event.shiftKey) emit('previous')
  else if (event.key === 'Enter') emit('next')
  else if (event.key === 'Delete' || event.key === 'Backspace') void choose(null)
  else if (event.key === 'v') viewsOpen.value = !viewsOpen.value
  else handled = false
  if (handled) event.preventDefault()
}

function takeWords() {
  if (words.value.trim()) void storeWords()
  emit('next')
}

/** Keys typed into own words are letters, but for those that lead out of the field. */
function onWordsKey(event: KeyboardEvent) {
  if (event.ctrlKey || event.altKey || event.metaKey) return // a key of the frame, such as Alt+2 to the next sample
  event.stopPropagation()
  if (event.isComposing) return
  if (event.key === 'Enter' || event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    event.preventDefault()
    if (event.key === 'ArrowUp' || event.shiftKey) emit('previous')
    else takeWords()
  } else if (event.key === 'Escape') words.value = ''
}
</script>

<template>
  <div class="observation" :data-key="observation.key" data-stop
    :data-copied="copied.join(' ') || undefined" :data-unsaved="words.trim() ? observation.title : undefined" :data-answered="held !== null" @focusin="$emit('here')" @focusout="onFocusOut">
    <span :id="`of-${observation.key}`" class="title sentence">
      {{ observation.title }}<span v-if="observation.whole_only" class="whole" aria-hidden="true" title="only on the uncut filter"> ◐</span>
    </span>
    <div class="choices wrap" :role="observation.several ? 'group' : 'radiogroup'" :aria-labelledby="`of-${observation.key}`" @keydown="onKey" @focusout="settle([])">
      <button
        v-for="(choice, i) in observation.choices"
        :key="choice.value"
        type="button"
        :role="observation.several ? 'checkbox' : 'radio'"
        :aria-checked="holds(choice.value)"
        :tabindex="(observation.several ? i === 0 : holds(choice.value)) || (!known && i === 0) ? 0 : -1"
        :title="choice.meaning"
        @click="toggle(choice.value)"
      >
        <svg viewBox="0 0 48 32" width="48" height="32" aria-hidden="true">
          <path v-for="(stroke, k) in pictures[choice.value] ?? []" :key="k" :class="stroke.kind" :d="stroke.d" />
        </svg>
        <span class="name"><kbd>{{ i + 1 }}</kbd> {{ choice.value }}</span>
      </button>
      <input
        v-if="!observation.closed"
        v-model="words"
        class="words small"
        :placeholder="others || 'other words'"
        :aria-label="`${observation.title} in other words`"
        tabindex="-1"
        @keydown="onWordsKey"
      />
      <button
        v-if="observation.views.length"
        type="button"
        class="views"
        tabindex="-1"
        :aria-expanded="viewsOpen"
        @click="viewsOpen = !viewsOpen"
      >
        <kbd>v</kbd> views
      </button>
      <CopiedMark :things="things" named />
    </div>
    <PractitionerViews v-if="viewsOpen" :views="observation.views" />
    <p v-if="why || refused" class="said-wrong">{{ why || refused }}</p>
  </div>
</template>

<style scoped>
.observation {
  display: grid;
  grid-template-columns: 9.2rem minmax(0, 1fr);
  column-gap: 0.9rem;
  align-items: center;
  padding: 0.3rem 0.9rem;
  border-top: 1px solid var(--line);
  scroll-margin-block: 4rem;
}
.observation:focus-within {
  background: var(--hand-wash);
}
.whole {
  color: var(--amber-ink);
  font-size: 0.8em;
}
.choices {
  gap: 0.35rem;
  align-items: stretch;
}
.choices button {
  border: 1px solid var(--line-strong);
  border-radius: 8px;
  background: var(--paper);
  padding: 0.15rem 0.45rem 0.2rem;
  display: flex;
  flex-direction: column;
  align-items: center;
  font-size: var(--fine);
}
.choices button[aria-checked='true'] {
  border: 2px solid var(--hand);
  background: var(--hand-wash);
  font-weight: 600;
}
.choices .views {
  justify-content: center;
  border-style: dashed;
}
.words {
  width: 7rem;
  border: 1px dashed var(--line-strong);
  padding: 0 0.5rem;
}
svg path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.3;
  stroke-linejoin: round;
  stroke-linecap: round;
}
svg .s {
  fill: var(--slate-wash);
  stroke: var(--slate);
}
svg .r {
  fill: var(--ink-soft);
  stroke: var(--ink);
  fill-rule: evenodd;
}
svg .o {
  fill: var(--amber-wash);
  stroke: var(--amber);
  fill-rule: evenodd;
}
svg .d {
  stroke-dasharray: 3 2;
}
svg .l {
  stroke-width: 1.5;
}
.views,
.observation .said-wrong {
  grid-column: 2;
  font-size: var(--small);
  margin: 0.25rem 0 0;
  padding-left: 1rem;
}
</style>
