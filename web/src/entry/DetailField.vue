<script setup lang="ts">
/** A detail: one value at a time, saved on Enter, Tab or leaving; what it was before can be brought back by undo.
 *  One of several is a plain select: Enter saves it and goes on, as in every other field. */
import CopiedMark from './CopiedMark.vue'
import PractitionerViews from './PractitionerViews.vue'
import { useCopied } from '@/sample/copies'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { ProblemError, type Schemas } from '@/api/client'
import { term } from '@/catalogue/catalogue'
import type { UnitFamily } from '@/catalogue/units'
import { dateInWords } from '@/shared/clock'
import { typedId, useTyped } from '@/shared/useTyped'

const props = defineProps<{
  sampleId: number
  detail: Schemas['DetailOut']
  /** As stored: what the change is compared with. */
  value: string
  /** Its revision: what a change names as seen. */
  revision: number
  number?: Schemas['DetailValueOut']
  /** Warning about an unlikely value. */
  question?: string
  family: UnitFamily
  options?: readonly string[]
  set: (key: string, detail: Schemas['DetailIn'], revision: number) => Promise<unknown>
}>()
const emit = defineEmits<{ next: [isArrow?: boolean]; previous: [] }>()

/** As it stands in the field: as it was typed; what nobody typed, in the family's unit. */
const shown = computed(() => (props.number && !props.number.is_typed ? props.number[props.family] : props.value))
/** What is typed and not stored outlives the view; what was refused stands in its own field, with its sentence. */
const kept = useTyped(() => typedId(props.sampleId, props.detail.key), () => void keep())
const { why: refused } = kept
const text = ref(refused.value ? kept.text.value : kept.text.value || shown.value)
const standing = ref(shown.value)
/** The revision that was there when the typing began. */
const seen = ref(props.revision)
const saving = ref(false)
let sent = ''
let asked = false // another text came while one is on its way
const conflict = ref(false)
const input = useTemplateRef<HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement>('input')
const usual = computed(() => (props.family === 'metric' ? props.detail.usual : props.detail.usual_inch))
/** Where the number comes from, as far as that is said of it alone; and what it is in the family's unit. */
const marks = computed(() => {
  const { number } = props
  if (props.detail.kind === 'date' && props.value) return [dateInWords(props.value)]
  if (!number) return []
  const other = number.is_typed && number[props.family] !== props.value && !/^price$/.test(props.detail.kind) ? `= ${number[props.family]}` : ''
  return [
    number.provenance ? term('provenance', number.provenance) : '',
    number.origin === 'library' ? 'from the library' : (number.origin ?? ''),
    other,
  ].filter(Boolean)
})

const things = [`details/${props.detail.key}`]
const { open: copied } = useCopied(() => things)

/** Take over what another window, an undo or the other family has put there, unless something is being typed here. */
watch([() => props.revision, shown], ([revision, display]) => {
  const untouched = text.value === standing.value
  if (untouched) text.value = display
  if (untouched || conflict.value || text.value === display) {
    seen.value = revision
    standing.value = display
  }
  conflict.value = false
})
watch(text, (words) => (kept.text.value = words.trim() === standing.value.trim() ? '' : words), { flush: 'sync' })

/** Save what was typed; false where it was refused, and stands here with the reason. */
async function keep(): Promise<boolean> {
  const typed = text.value.trim()
  if (saving.value) asked ||= typed !== sent
  if (typed === standing.value.trim() || saving.value) return true
  const at = typedId(props.sampleId, props.detail.key)
  saving.value = true
  sent = typed
  try {
    await props.set(props.detail.key, { text: typed, family: props.family }, seen.value)
    await nextTick()
    standing.value = shown.value
    if (text.value.trim() === typed) {
      text.value = shown.value
      kept.text.value = ''
    }
    seen.value = props.revision
    return true
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    kept.text.value = ''
    kept.comeBack(at, typed, error.message)
    const elsewhere = error.status === 412
    if (elsewhere && props.revision !== seen.value) seen.value = props.revision
    else conflict.value = elsewhere
    return false
  } finally {
    saving.value = false
    if (asked) {
      asked = false
      void keep()
    }
  }
}

/** Go on at once; what is refused keeps its text and brings the focus back, unless the hand is already busy elsewhere. */
async function keepAndGo(by: 'next' | 'previous') {
  const kept = keep()
  if (by === 'next') emit('next')
  else emit('previous')
  const left = document.activeElement
  const before = left instanceof HTMLInputElement ? left.value : ''
  if (await kept) return
  const busy = document.activeElement !== left || (left instanceof HTMLInputElement && left.value !== before)
  if (!busy) input.value?.focus()
}

function onKey(event: KeyboardEvent) {
  if (event.isComposing) return
  const long = props.detail.kind === 'long_words'
  if (event.key === 'Enter' && !(long && event.shiftKey)) {
    event.preventDefault()
    void keepAndGo(event.shiftKey ? 'previous' : 'next')
  } else if (event.key === 'ArrowDown' && !long && props.detail.kind !== 'one_of') {
    event.preventDefault()
    emit('next', true)
  } else if (event.key === 'ArrowUp' && !long && props.detail.kind !== 'one_of') {
    event.preventDefault()
    emit('previous')
  } else if (event.key === 'Escape') {
    text.value = standing.value
    kept.text.value = ''
  }
}
</script>

<template>
  <div class="detail" :class="{ words: detail.kind === 'words' }" :data-key="detail.key" data-stop
    :data-copied="copied.join(' ') || undefined" :data-unsaved="text.trim() === standing.trim() ? undefined : detail.title">
    <label class="sentence" :for="`detail-${detail.key}`">
      {{ detail.title }}<span v-if="detail.whole_only" class="whole" aria-hidden="true" title="before the filter is opened"> ◐</span>
    </label>
    <textarea
      class="wide"
      v-if="detail.kind === 'long_words'"
      :id="`detail-${detail.key}`"
      ref="input"
      v-model="text"
      rows="2"
      :data-detail="text === standing ? '' : undefined"
      @keydown="onKey"
      @blur="keep"
    />
    <select
      class="wide"
      v-else-if="detail.kind === 'one_of'"
      :id="`detail-${detail.key}`"
      ref="input"
      v-model="text"
      :aria-invalid="refused !== ''"
      :data-detail="text === standing ? '' : undefined"
      @keydown="onKey"
      @change="keep"
      @blur="keep"
    >
      <option value="">{{ detail.usual ? `${detail.usual}, assumed` : 'not stated' }}</option>
      <option v-for="choice in detail.choices" :key="choice" :value="choice">{{ choice.replaceAll('_', ' ') }}</option>
    </select>
    <input
      class="wide"
      v-else
      :placeholder="usual ? `${usual} assumed` : ''"
      :id="`detail-${detail.key}`"
      ref="input"
      v-model="text"
      :list="options?.length || detail.choices.length ? `of-${detail.key}` : undefined"
      :class="{ typed: ['length', 'price', 'pressure_band', 'cross_holes', 'defect_holes', 'date', 'quantity', 'count'].includes(detail.kind) }"
      :aria-invalid="refused !== ''"
      autocomplete="off"
      spellcheck="false"
      :data-detail="text === standing ? '' : undefined"
      @keydown="onKey"
      @blur="keep"
    />
    <datalist v-if="options?.length || detail.choices.length" :id="`of-${detail.key}`">
      <option v-for="choice in options?.length ? options : detail.choices" :key="choice" :value="choice" />
    </datalist>
    <p v-if="refused" class="said-wrong fine" role="alert">{{ refused }}</p>
    <p v-if="question && !refused" class="said-wrong fine">{{ question }}</p>
    <p v-if="marks.length && !refused" class="marks soft fine">{{ marks.join(' · ') }}</p>
    <p v-if="copied.length" class="marks fine"><CopiedMark :things="things" named /></p>
    <p v-if="!refused && detail.help" class="help soft fine">{{ detail.help }}</p>
    <PractitionerViews v-if="detail.views.length" class="help" :views="detail.views" />
  </div>
</template>

<style scoped>
.detail {
  display: grid;
  grid-template-columns: 10.6rem minmax(0, 1fr);
  column-gap: 0.7rem;
  align-items: center;
  padding: 0.16rem 0;
}
.whole {
  color: var(--amber-ink);
  font-size: 0.8em;
}
input,
select,
textarea {
  padding: 0.3rem 0.55rem;
  resize: vertical;
}
input.typed {
  font-family: var(--typed);
}
[aria-invalid='true'] {
  border-color: var(--rust);
}
p {
  grid-column: 2;
  margin: 0.05rem 0 0;
}
.help {
  display: none;
}
.detail:focus-within .help {
  display: block;
}
</style>
