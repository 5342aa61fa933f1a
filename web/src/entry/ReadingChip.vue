<script setup lang="ts">
/** One reading as typed; correcting it, or setting it aside with a reason, happens in place. */
import InputText from 'primevue/inputtext'
import { computed, nextTick, ref, useId, useTemplateRef } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { clock } from '@/shared/clock'
import { useRefusal } from '@/shared/useRefusal'
import { term, terms } from '@/catalogue/catalogue'
import type { UnitFamily } from '@/catalogue/units'

type CorrectionReason = NonNullable<Schemas['CorrectionIn']['reason']>

const props = defineProps<{
  reading: Schemas['ReadingOut']
  usualInstrument: string
  /** Of a bare number. */
  unit: string
  family?: UnitFamily
  correct: (text: string, reason: CorrectionReason) => Promise<unknown>
}>()
const emit = defineEmits<{ setAside: [reason: string]; useAgain: []; leave: [] }>()

/** Action under way on the reading. */
const asking = ref<'correct' | 'aside' | null>(null)
const reason = ref('')
const right = ref('')
const because = ref<CorrectionReason>('misread')
const said = ref('')
const { refused, guarded } = useRefusal()
const chip = useTemplateRef<HTMLButtonElement>('chip')
const field = useTemplateRef<{ $el: HTMLInputElement }>('field')
const listId = useId()
const reasons = computed(() => Object.entries(terms('correction')) as [CorrectionReason, string][])

const past = ref<Schemas['HistoryOut'][]>([])

const nominal = computed(() => (props.family !== 'inch' ? props.reading.nominal_metric : props.reading.nominal_inch))
/** Record of the reading beside its text. */
const about = computed(() => {
  const { provenance, instrument, note, confirmed, copied_from: copied } = props.reading
  return [
    copied ? 'copied' : provenance === 'measured' ? '' : term('provenance', provenance),
    nominal.value ? `nominal ${nominal.value}` : '',
    instrument && instrument !== props.usualInstrument ? term('instrument', instrument) : '',
    note ?? '',
    confirmed ? 'confirmed' : '',
  ].filter(Boolean)
})
const told = computed(() => {
  const { metric, inch, taken_at } = props.reading
  const from = props.reading.copied_from ? [`copied from ${props.reading.copied_from}`] : []
  const lines = [`${metric} = ${inch}`, ...from, taken_at ? `typed ${clock(taken_at)}` : props.reading.copied_from ? 'assumed until it is confirmed' : 'from a document', ...about.value]
  if (!props.reading.used && props.reading.set_aside_reason === null) lines.push('not used: there are better ones')
  for (const event of past.value)
    lines.push(`${clock(event.at)} ${event.words}${event.undone ? ' (undone)' : ''}`)
  return lines.join('\n')
})

/** Fetch what was done to the reading when somebody looks. */
async function lookBack() {
  try {
    const path = { reading_id: props.reading.id }
    past.value = await unwrap(client.GET('/api/readings/{reading_id}/history', { params: { path } }))
  } catch {
    // the history is a help only
  }
}

/** A press that was meant for what lay here before the reading came is none of the reading's. */
const SETTLING_MS = 600
const came = performance.now()
const settles = (event: MouseEvent) => event.detail !== 0 && performance.now() - came < SETTLING_MS
function pressed(event: MouseEvent, work: () => void) {
  if (!settles(event)) work()
}
/** Nor does it take the focus: the number that is typed next belongs elsewhere. */
function pressing(event: MouseEvent) {
  if (performance.now() - came < SETTLING_MS) event.preventDefault()
}

async function ask(what: 'correct' | 'aside', begun = '') {
  asking.value = what
  said.value = refused.value = ''
  if (what === 'correct') right.value = begun
  await nextTick()
  field.value?.$el.focus()
}

async function stopAsking() {
  asking.value = null
  reason.value = right.value = ''
  await nextTick()
  chip.value?.focus()
}

/** The wrong one is set aside with the reason, the right one takes its place: one change, which undo takes back. */
async function putRight() {
  if (!right.value.trim()) {
    said.value = 'Type the right one, or set it aside.'
    return
  }
  said.value = ''
  if (!(await guarded(() => props.correct(right.value, because.value)))) return
  asking.value = null
  right.value = ''
  because.value = 'misread'
  emit('leave')
}

function confirm() {
  if (!reason.value.trim()) {
    said.value = 'Say in a few words why it does not count.'
    return
  }
  emit('setAside', reason.value)
  asking.value = null
  reason.value = ''
}

function onKey(event: KeyboardEvent) {
  const counts = props.reading.set_aside_reason === null
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault()
    if (counts) void ask('aside')
  } else if (counts && /^[\d.,~]$/.test(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey) {
    event.preventDefault() // the right number is being typed already
    void ask('correct', event.key)
  } else if (event.key === 'Escape') emit('leave')
  else if (event.key === 'ArrowRight') {
    const next = chip.value?.parentElement?.nextElementSibling?.querySelector('button')
    if (next) next.focus()
    else emit('leave')
  } else if (event.key === 'ArrowLeft') {
    chip.value?.parentElement?.previousElementSibling?.querySelector('button')?.focus()
  }
}
</script>

<template>
  <span class="chip-place" @mousedown="pressing">
    <span v-if="asking === 'correct'" class="asking row wrap">
      <label class="because">
        Instead of <span class="typed">{{ reading.text }}</span>
        <InputText
          ref="field"
          v-model="right"
          class="typed right"
          :title="unit ? `a bare number is ${unit}` : 'a bare number'"
          size="small"
          autocomplete="off"
          :invalid="said !== '' || refused !== ''"
          @keydown.enter.prevent.stop="putRight"
          @keydown.escape.prevent.stop="stopAsking"
        />
        <span class="soft">{{ unit }}</span>
      </label>
      <label class="because">
        because
        <select v-model="because" aria-label="Why it is corrected" @keydown.enter.prevent.stop="putRight" @keydown.escape.prevent.stop="stopAsking">
          <option v-for="[key, word] in reasons" :key="key" :value="key">{{ word }}</option>
        </select>
      </label>
      <button type="button" class="tool" @click="putRight">Correct</button>
      <button type="button" class="tool" @click="ask('aside')">Set aside …</button>
      <button type="button" class="tool" @click="stopAsking">Keep</button>
      <span v-if="said || refused" class="said-wrong" role="alert">{{ said || refused }}</span>
    </span>
    <span v-else-if="asking" class="asking row wrap">
      <label>
        <span>Set aside <span class="typed">{{ reading.text }}</span> because</span>
        <InputText
          ref="field"
          v-model="reason"
          size="small"
          :list="listId"
          :invalid="said !== ''"
          @keydown.enter.prevent.stop="confirm"
          @keydown.escape.prevent.stop="stopAsking"
        />
      </label>
      <datalist :id="listId"><option v-for="[key, word] in reasons" :key="key" :value="word" /></datalist>
      <button type="button" class="tool" @click="confirm">Set aside</button>
      <button type="button" class="tool" @click="stopAsking">Keep</button>
      <span v-if="said" class="said-wrong">{{ said }}</span>
    </span>
    <button
      v-else-if="reading.set_aside_reason === null"
      ref="chip"
      type="button"
      class="chip boxed"
      :class="{ outlier: reading.outlier, unused: !reading.used, copied: reading.copied_from }"
      tabindex="-1"
      :title="`${told}\nClick, or type the right number, to correct it; Delete, or ×, sets it aside`"
      @focus="lookBack"
      @pointerenter="lookBack"
      :aria-label="`Reading ${[reading.text, about.join(', '), reading.outlier ? 'outlier' : ''].filter(Boolean).join(' ')}; ${reading.copied_from ? `from ${reading.copied_from}, assumed until confirmed; ` : ''}type the right number to correct it, Delete sets it aside`"
      @click="pressed($event, () => void ask('correct'))"
      @keydown="onKey"
    >
      <span v-if="reading.hole !== null" class="about fine nowrap soft">hole {{ reading.hole }}: </span><span class="typed">{{ reading.text }}</span
      >{{ ' ' }}<span v-if="about.length" class="about fine nowrap soft">{{ about.join(', ') }}</span
      >{{ ' ' }}<span v-if="reading.outlier" class="mark fine wrong">outlier</span>
      <span class="cross soft" aria-hidden="true" @click.stop="pressed($event, () => void ask('aside'))">×</span>
    </button>
    <button
      v-else
      ref="chip"
      type="button"
      class="chip set-aside boxed soft"
      tabindex="-1"
      :title="`${told}\nSet aside: ${reading.set_aside_reason}. Click to use it again`"
      @focus="lookBack"
      @pointerenter="lookBack"
      :aria-label="`Reading ${reading.text} ${reading.set_aside_reason}; set aside, Enter uses it again`"
      @click="pressed($event, () => $emit('useAgain'))"
      @keydown="onKey"
    >
      <s class="typed">{{ reading.text }}</s>
      <span class="why fine nowrap">{{ reading.set_aside_reason }}</span>
    </button>
  </span>
</template>

<style scoped>
.chip-place {
  display: inline-flex;
  max-width: 100%;
}
.chip-place:has(.asking) {
  flex: 1 0 100%;
}
.chip {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  padding: 0.15rem 0.5rem;
  max-width: min(22rem, 100%);
}
.chip .typed {
  flex: 0 1 auto; /* the number is never cut: what is said of it gives way, and one too long is wrapped */
  text-align: left;
}
.chip .about {
  flex: 0 1000 auto;
  min-width: 0;
}
.chip:hover .cross {
  color: var(--rust);
}
.outlier {
  border: 2px solid var(--rust);
  background: var(--rust-wash);
}
.copied {
  border: 1px dashed var(--amber);
}
.about {
  overflow: hidden;
  text-overflow: ellipsis;
}
.unused {
  opacity: 0.7;
  border-style: dotted;
}
.set-aside {
  border-style: dashed;
  background: none;
}
.why {
  font-style: italic;
  overflow: hidden;
  text-overflow: ellipsis;
}
.asking {
  gap: 0.3rem 0.4rem;
  flex: 1;
  border: 1px solid var(--hand);
  border-radius: 6px;
  padding: 0.25rem 0.5rem;
  background: var(--paper);
}
.asking label {
  display: flex;
  flex-direction: column;
  gap: 0.15rem;
  flex: 1 0 100%;
  font-size: var(--small);
}
.asking .because {
  flex: 0 0 auto;
  flex-direction: row;
  align-items: center;
  gap: 0.6rem;
}
.right {
  width: 8rem;
}
.because select {
  padding: 0.1rem 0.3rem;
}
</style>
