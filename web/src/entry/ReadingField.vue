<script setup lang="ts">
/** One quantity: a large field, what it understood, the readings as chips, mean ± u, and what is questioned about it. */
import InputText from 'primevue/inputtext'
import { computed, nextTick, ref, toRef, useTemplateRef, watch } from 'vue'
import { client, ProblemError, type Schemas } from '@/api/client'
import type { BenchChanges } from '@/sample/useSheet'
import { useEcho } from './useEcho'
import { typedId, useTyped } from '@/shared/useTyped'
import { thingsOfField, useCopied } from '@/sample/copies'
import { useRefusal } from '@/shared/useRefusal'
import { quantities } from '@/catalogue/catalogue'
import type { UnitFamily } from '@/catalogue/units'
import ReadingDetails, { type ChosenInstrument, type ChosenProvenance } from './ReadingDetails.vue'
import CopiedMark from './CopiedMark.vue'
import ReadingChip from './ReadingChip.vue'
import PractitionerViews from './PractitionerViews.vue'
import ReadingMean from './ReadingMean.vue'

const props = defineProps<{
  field: Schemas['FieldOut']
  /** Of a size of holes: the group it belongs to, whose place may have become another's. */
  holeGroupId?: number
  /** Of the first size of a group: how many holes there are is confirmed with it. */
  withGroup?: boolean
  sampleId: number
  family: UnitFamily
  changes: BenchChanges
}>()
const emit = defineEmits<{ next: [isArrow?: boolean]; previous: []; here: [] }>()

const idOfField = () => typedId(props.sampleId, props.field.key, props.holeGroupId)
const { text, why, comeBack, onFocusOut } = useTyped(idOfField, () => void take())
const { refused, guarded } = useRefusal()
const underway = ref<string[]>([])
const provenance = ref<ChosenProvenance>('measured')
const instrument = ref<ChosenInstrument>('')
const note = ref('')
const input = useTemplateRef<{ $el: HTMLInputElement }>('input')
const row = useTemplateRef<HTMLElement>('row')
const family = toRef(props, 'family')
const things = computed(() => [...thingsOfField(props.field), ...(props.withGroup ? [`holes/${props.holeGroupId}`] : [])])
const { open: copied } = useCopied(() => things.value)

function reading(typed: string, confirm: boolean): Schemas['ReadingIn'] {
  return {
    key: props.field.key,
    text: typed,
    family: props.family,
    provenance: provenance.value === 'measured' ? null : provenance.value,
    instrument: instrument.value || null,
    note: note.value || null,
    confirm,
    hole_group_id: props.holeGroupId ?? null,
  }
}

const { echo, clear } = useEcho(
  text,
  (typed) =>
    client.POST('/api/samples/{sample_id}/echo', {
      params: { path: { sample_id: props.sampleId } },
      body: reading(typed, false),
    }),
  () => family.value,
)

const unit = computed(() => (props.family === 'metric' ? props.field.metric_unit : props.field.inch_unit))
const preview = computed(() => (text.value.trim() ? (echo.value?.estimate ?? null) : null))
const problem = computed(() => why.value || refused.value || (text.value.trim() ? (echo.value?.problem ?? '') : ''))
const correctable = computed(() => props.field.warnings.find((warning) => warning.correction && warning.reading_id))
const questioned = computed(() => props.field.warnings.find((warning) => warning.reading_id && !warning.confirmed))
const views = computed(() => quantities().get(props.field.key)?.views ?? [])
const viewsOpen = ref(false)
const plain = computed(() => provenance.value === 'measured' && !instrument.value && !note.value)

/** Take what was typed; what is refused comes back here with its reason. Whether it was taken. */
async function take(): Promise<boolean> {
  const typed = text.value
  const at = idOfField()
  const stored = props.changes.addReading(reading(typed, Boolean(echo.value?.question)))
  text.value = ''
  clear()
  underway.value.push(typed)
  try {
    await stored
    provenance.value = 'measured'
    instrument.value = note.value = ''
    return true
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error
    comeBack(at, typed, error.message)
    return false
  } finally {
    underway.value.splice(underway.value.indexOf(typed), 1)
  }
}

/**
 * Take what was typed and go on at once, so that fast typing never lands in the wrong field. Where it is
 * refused, the focus comes back, unless the hand is already busy elsewhere.
 */
async function accept() {
  const taken = text.value.trim() ? take() : Promise.resolve(true)
  emit('next')
  if (await taken) return
  await nextTick()
  const busy = document.activeElement instanceof HTMLInputElement && document.activeElement.value !== ''
  if (!busy) input.value?.$el.focus()
}

/** Do something to readings already taken; what is refused is said here. */
const change = (work: Promise<unknown>) => guarded(() => work)

const slip = (text: string): Schemas['CorrectionIn'] => ({ text, family: props.family, reason: 'slip' })

/** Correct to what was likely meant: in the field while it is typed, else in place of the reading. */
function correct() {
  if (text.value.trim() && echo.value?.correction) text.value = echo.value.correction
  else if (!text.value.trim() && correctable.value)
    void change(props.changes.correct(correctable.value.reading_id!, slip(correctable.value.correction!)))
}

function confirm() {
  if (!text.value.trim() && questioned.value)
    void change(props.changes.confirm(questioned.value.reading_id!))
}

function setState(state: Schemas['StateIn']['state']) {
  void change(props.changes.setState(props.field.key, state))
}

const KEYS: Record<string, (event: KeyboardEvent) => void> = {
  Enter: (event) => (event.shiftKey ? emit('previous') : void accept()),
  ArrowDown: () => emit('next', true),
  ArrowUp: () => emit('previous'),
  F2: correct,
  F4: confirm,
  Escape: () => {
    text.value = ''
    refused.value = ''
  },
}

function onKey(event: KeyboardEvent) {
  if (event.isComposing) return
  const detail = event.altKey ? { p: 'provenance', i: 'instrument', n: 'note', s: 'state' }[event.key] : undefined
  if (event.altKey && event.key === 'v' && views.value.length) {
    event.preventDefault()
    viewsOpen.value = !viewsOpen.value
  } else if (detail) {
    event.preventDefault()
    row.value?.querySelector<HTMLElement>(`[data-detail="${detail}"]`)?.focus()
  } else if (event.key === 'Tab' && !event.shiftKey && text.value.trim()) {
    event.preventDefault()
    void accept()
  } else if (event.key === 'Backspace' && text.value === '') {
    const chips = row.value?.querySelectorAll<HTMLButtonElement>('.chip')
    chips?.[chips.length - 1]?.focus()
  } else if (KEYS[event.key]) {
    event.preventDefault()
    KEYS[event.key]!(event)
  }
}

/** Keep the row clear of the edges, so that what it says under the field is seen too. */
function intoView() {
  emit('here')
  row.value?.scrollIntoView?.({ block: 'nearest' })
}

function focus() {
  input.value?.$el.focus()
}

/** Change a reading from its chip: the chip becomes another one, and the hand goes back to the field. */
function leaveChip(work: Promise<unknown>) {
  focus()
  void change(work)
}

watch(text, () => (refused.value = ''))
defineExpose({ focus })
</script>

<template>
  <div
    ref="row"
    class="row"
    :data-key="field.key"
    :data-answered="field.readings.length > 0 || field.state !== null"
    :data-copied="copied.join(' ') || undefined"
    :data-unsaved="text.trim() ? field.title : undefined"
    data-stop
    @focusin="intoView"
    @focusout="onFocusOut"
  >
    <label class="title sentence" :for="`in-${field.key}`">
      {{ field.title }}<span v-if="field.whole_only" class="whole" aria-hidden="true" title="only on the uncut filter"> ◐</span>
    </label>
    <div class="entry">
      <InputText
        :id="`in-${field.key}`"
        ref="input"
        v-model="text"
        class="input typed-face wide"
        autocomplete="off"
        spellcheck="false"
        :invalid="problem !== ''"
        :aria-describedby="`hint-${field.key}`"
        @keydown="onKey"
      />
      <span class="unit soft small" :title="unit ? `a bare number is ${unit}` : 'a bare number'">{{ unit || 'count' }}</span>
    </div>
    <ReadingMean :field="field" :preview="preview" :family="family" :unit="unit" />
    <div class="chips wrap">
      <ReadingChip
        v-for="item in field.readings"
        :key="item.id"
        :reading="item"
        :usual-instrument="field.instrument"
        :unit="unit"
        :family="family"
        :correct="(meant, reason) => changes.correct(item.id, { text: meant, family, reason })"
        @set-aside="leaveChip(changes.setAside(item.id, $event))"
        @use-again="leaveChip(changes.useAgain(item.id))"
        @leave="focus"
      />
      <CopiedMark :things="things" />
      <span v-for="(typed, i) in underway" :key="`underway-${i}`" class="underway typed soft">{{ typed }} …</span>
    </div>
    <div :id="`hint-${field.key}`" class="hint small" aria-live="polite">
      <p v-if="problem" class="said-wrong">
        {{ problem }}
        <button v-if="!why && !refused && echo?.correction" type="button" class="key-button" tabindex="-1" @click="correct">
          <kbd>F2</kbd> {{ echo.correction }}
        </button>
      </p>
      <template v-else-if="text.trim() && echo">
        <p>
          <span class="typed">{{ echo.text }}</span> is {{ echo.metric
          }}<template v-if="echo.inch !== echo.metric"> = {{ echo.inch }}</template>
          <span class="soft"> · Enter takes it</span>
        </p>
        <p v-if="echo.question" class="said-wrong">
          {{ echo.question }} Enter takes it all the same.
          <button v-if="echo.correction" type="button" class="key-button" tabindex="-1" @click="correct">
            <kbd>F2</kbd> {{ echo.correction }}
          </button>
        </p>
      </template>
      <p
        v-for="warning in field.warnings"
        :key="warning.message"
        :class="warning.confirmed ? 'soft confirmed' : 'said-wrong'"
      >
        {{ warning.message }}<template v-if="warning.confirmed"> Confirmed.</template>
        <template v-else-if="warning.reading_id">
          <button
            v-if="warning.correction"
            type="button"
            class="key-button"
            tabindex="-1"
            @click="change(changes.correct(warning.reading_id, slip(warning.correction)))"
          >
            <kbd>F2</kbd> {{ warning.correction }}
          </button>
          <button
            type="button"
            class="key-button"
            tabindex="-1"
            @click="change(changes.confirm(warning.reading_id))"
          >
            <kbd>F4</kbd> it is right
          </button>
        </template>
      </p>
      <ReadingDetails
        v-model:provenance="provenance"
        v-model:instrument="instrument"
        v-model:note="note"
        class="details"
        :class="{ held: !plain }"
        :field="field"
        @state="setState"
        @back="focus"
      >
        <button v-if="views.length" type="button" class="key-button" tabindex="-1" :aria-expanded="viewsOpen" @click="viewsOpen = !viewsOpen">
          <kbd>Alt+V</kbd> views
        </button>
      </ReadingDetails>
      <PractitionerViews v-if="viewsOpen" :views="views" />
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 9.2rem 10.5rem 9.4rem minmax(0, 1fr);
  align-items: center;
  gap: 0 0.9rem;
  padding: 0.28rem 0.9rem;
  border-top: 1px solid var(--line);
  scroll-margin-block: 5.5rem;
}
.row:focus-within {
  background: var(--hand-wash);
}
.title {
  cursor: pointer;
}
.entry {
  position: relative;
}
.input {
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
}
.whole {
  color: var(--amber-ink);
  font-size: 0.8em;
}
.chips {
  gap: 0.3rem;
  min-width: 0;
}
@media (pointer: coarse) {
  .input {
    min-height: 2.75rem;
  }
}
/* where there is little room, the readings stand below their field */
@media (max-width: 1100px) {
  .row {
    grid-template-columns: 8.2rem 8rem minmax(0, 1fr);
  }
  .chips {
    grid-column: 2 / -1;
  }
  .chips:not(:empty) {
    margin-top: 0.2rem;
  }
}
.chips:has(.asking) {
  grid-column: 2 / -1;
}
.hint {
  grid-column: 2 / -1;
}
.hint p {
  margin: 0.15rem 0 0;
}
.underway {
  display: inline-flex;
  align-items: center;
  border: 1px dashed var(--line-strong);
  border-radius: 6px;
  padding: 0.15rem 0.5rem;
}
.details {
  display: none;
}
.row:focus-within .details,
.details.held {
  display: flex;
}
.key-button {
  border: 1px solid var(--line-strong);
  border-radius: 5px;
  background: var(--paper);
  color: var(--ink);
  padding: 0 0.4rem;
  margin-left: 0.3rem;
}
.confirmed {
  font-style: italic;
}
</style>
