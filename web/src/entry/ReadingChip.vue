<script setup lang="ts">
/** One reading as typed; striking it out asks for the reason in place. */
import InputText from 'primevue/inputtext'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { clock } from '@/shared/clock'
import { term } from '@/catalogue/catalogue'

const props = defineProps<{ reading: Schemas['ReadingOut']; usualInstrument: string }>()
const emit = defineEmits<{ setAside: [reason: string]; useAgain: []; leave: [] }>()

const asking = ref(false)
const reason = ref('')
const said = ref('')
const chip = useTemplateRef<HTMLButtonElement>('chip')
const field = useTemplateRef<{ $el: HTMLInputElement }>('field')

const past = ref<Schemas['HistoryOut'][]>([])

/** What was recorded of the reading beside its text. */
const about = computed(() => {
  const { provenance, instrument, note, confirmed } = props.reading
  return [
    provenance === 'measured' ? '' : term('provenance', provenance),
    instrument && instrument !== props.usualInstrument ? term('instrument', instrument) : '',
    note ?? '',
    confirmed ? 'confirmed' : '',
  ].filter(Boolean)
})
const told = computed(() => {
  const { metric, inch, taken_at } = props.reading
  const lines = [`${metric} = ${inch}`, taken_at ? `typed ${clock(taken_at)}` : 'from a document', ...about.value]
  if (!props.reading.used && props.reading.set_aside_reason === null) lines.push('not used: there are better ones')
  for (const event of past.value)
    lines.push(`${clock(event.at)} ${event.words}${event.undone ? ' (undone)' : ''}`)
  return lines.join('\n')
})

/** Fetch what was done to the reading when somebody looks. */
async function lookBack() {
  if (past.value.length) return
  try {
    const path = { reading_id: props.reading.id }
    past.value = await unwrap(client.GET('/api/readings/{reading_id}/history', { params: { path } }))
  } catch {
    // the history is a help only
  }
}

async function ask() {
  asking.value = true
  said.value = ''
  await nextTick()
  field.value?.$el.focus()
}

async function stopAsking() {
  asking.value = false
  reason.value = ''
  await nextTick()
  chip.value?.focus()
}

function confirm() {
  if (!reason.value.trim()) {
    said.value = 'Say in a few words why it does not count.'
    return
  }
  emit('setAside', reason.value)
  asking.value = false
  reason.value = ''
}

function onKey(event: KeyboardEvent) {
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault()
    if (props.reading.set_aside_reason === null) void ask()
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
  <span class="chip-place">
    <span v-if="asking" class="asking">
      <label>
        <span>Set aside <span class="typed">{{ reading.text }}</span> because</span>
        <InputText
          ref="field"
          v-model="reason"
          size="small"
          :invalid="said !== ''"
          @keydown.enter.prevent.stop="confirm"
          @keydown.escape.prevent.stop="stopAsking"
        />
      </label>
      <button type="button" class="small" @click="confirm">Set aside</button>
      <button type="button" class="small" @click="stopAsking">Keep</button>
      <span v-if="said" class="said-wrong">{{ said }}</span>
    </span>
    <button
      v-else-if="reading.set_aside_reason === null"
      ref="chip"
      type="button"
      class="chip"
      :class="{ outlier: reading.outlier, unused: !reading.used }"
      tabindex="-1"
      :title="`${told}\nClick, or Delete, to set it aside`"
      @focus="lookBack"
      @pointerenter="lookBack"
      :aria-label="`Reading ${reading.text}${reading.outlier ? ', an outlier' : ''}; Delete sets it aside`"
      @click="ask"
      @keydown="onKey"
    >
      <span class="typed">{{ reading.text }}</span>
      <span v-if="about.length" class="about">{{ about.join(', ') }}</span>
      <span v-if="reading.outlier" class="mark">outlier</span>
      <span class="cross" aria-hidden="true">×</span>
    </button>
    <button
      v-else
      ref="chip"
      type="button"
      class="chip set-aside"
      tabindex="-1"
      :title="`${told}\nSet aside: ${reading.set_aside_reason}. Click to use it again`"
      @focus="lookBack"
      @pointerenter="lookBack"
      :aria-label="`Reading ${reading.text}, set aside: ${reading.set_aside_reason}; Enter uses it again`"
      @click="$emit('useAgain')"
      @keydown="onKey"
    >
      <s class="typed">{{ reading.text }}</s>
      <span class="why">{{ reading.set_aside_reason }}</span>
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
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--paper);
  padding: 0.15rem 0.5rem;
  cursor: pointer;
  max-width: min(22rem, 100%);
}
.cross {
  color: var(--ink-soft);
}
.chip:hover .cross {
  color: var(--rust);
}
.outlier {
  border: 2px solid var(--rust);
  background: var(--rust-wash);
}
.about {
  font-size: 0.78rem;
  color: var(--ink-soft);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.unused {
  opacity: 0.7;
  border-style: dotted;
}
.mark {
  color: var(--rust);
  font-size: 0.8rem;
}
.set-aside {
  border-style: dashed;
  color: var(--ink-soft);
  background: none;
}
.why {
  font-size: 0.8rem;
  font-style: italic;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.asking {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
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
  font-size: 0.88rem;
}
.small {
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--paper);
  padding: 0.15rem 0.55rem;
  cursor: pointer;
}
</style>
