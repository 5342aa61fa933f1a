<script setup lang="ts">
/** The five headline results of the selected sample, along the bottom of every view. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { headlines, type Headline } from './headlines'
import { fieldOf, inputName } from '@/catalogue/inputs'
import { term } from '@/catalogue/catalogue'
import { countWords } from '@/catalogue/inputs'
import { usePreferences } from '@/shared/preferences'

const props = defineProps<{ sheet: Schemas['SheetOut']; titles: ReadonlyMap<string, string> }>()
const emit = defineEmits<{ need: [key: string]; working: [result: string] }>()

const preferences = usePreferences()
const shown = computed(() => headlines(props.sheet.analysis.results, preferences.family))

function need(key: string) {
  const field = fieldOf(key, props.titles)
  if (field) emit('need', field)
}

/** A reading that is missing, with the state that says why. */
function needWords(key: string): string {
  const states = props.sheet.parts.flatMap((part) => part.fields).filter((field) => field.key === key && field.state)
  const why = states.length ? ` (${term('state', states[0]!.state!)})` : ''
  return inputName(key, props.titles) + why
}

/** Basis of the number: the counts say "measured" by themselves. */
function inputWords(headline: Headline): string {
  const counts = countWords(props.sheet.input_counts[headline.name])
  const basis = headline.from.replace(/^measured(, )?/, '')
  if (!counts) return headline.from
  const isCounted = (props.sheet.input_counts[headline.name]?.assumed ?? 0) > 0
  const names = assumedWords(headline.assumed)
  const told = names ? `${counts}${isCounted ? ': ' : '; assumed: '}${names}` : counts
  return basis ? `${basis}: ${told}` : told
}

/** Assumptions by name: one number that is not this filter's own may decide the result. */
function assumedWords(keys: readonly string[]): string {
  if (!keys.length) return ''
  const names = keys.map((key) => inputName(key, props.titles).replace(/^.*: /, ''))
  return `${names.slice(0, MOST_NAMED).join(', ')}${names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : ''}`
}
const MOST_NAMED = 2

function assumedTitle(keys: readonly string[]): string | undefined {
  return keys.length ? `assumed: ${keys.map((key) => inputName(key, props.titles)).join('; ')}` : undefined
}
</script>

<template>
  <section class="tape" aria-label="Results" aria-live="polite">
    <article v-for="headline in shown" :key="headline.key" :data-result="headline.key">
      <h3 class="fine soft">
        <button v-if="headline.complete" type="button" class="open bare" title="Enter opens the working" @click="emit('working', headline.name)">
          {{ headline.title }}
        </button>
        <template v-else>{{ headline.title }}</template>
      </h3>
      <p v-if="headline.complete" class="value nowrap flush" :class="{ banded: headline.band }">
        <span :class="headline.isWords ? 'claimed' : 'number big'">{{ headline.text }}</span>
        <span v-if="headline.uncertainty" class="number soft" title="expanded uncertainty of this specimen, 95 %">
          ± {{ headline.uncertainty }}
        </span>
        <span v-if="headline.band" class="number soft" title="its 95 % interval, or the band of an estimate">({{ headline.band }})</span>
        <span v-if="!headline.isWords" class="unit small">{{ headline.unit }}</span>
      </p>
      <p v-else-if="headline.missing.length" class="value waits nowrap soft flush">not yet</p>
      <p v-else class="value waits nowrap soft flush">none</p>
      <p v-if="headline.complete" class="inputs soft fine flush" :title="assumedTitle(headline.assumed)">
        {{ inputWords(headline) }}
      </p>
      <component
        :is="fieldOf(headline.missing[0]!, titles) ? 'button' : 'p'"
        v-else-if="headline.missing.length"
        class="need fine"
        @click="need(headline.missing[0]!)"
      >
        needs {{ needWords(headline.missing[0]!)
        }}<template v-if="headline.missing.length > 1">, and {{ headline.missing.length - 1 }} more</template>
      </component>
    </article>
  </section>
</template>

<style scoped>
.tape {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  background: var(--paper);
  border-top: 2px dashed var(--line-strong);
}
article {
  padding: 0.5rem 0.9rem 0.6rem;
  border-left: 1px solid var(--line);
  min-width: 0;
}
article:first-child {
  border-left: 0;
}
h3 {
  font-weight: 500;
}
.claimed {
  white-space: normal;
  font-size: var(--small);
  line-height: 1.3;
}
.open {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
.value {
  display: flex;
  align-items: baseline;
  gap: 0.35rem;
}
.banded {
  flex-wrap: wrap;
  row-gap: 0;
}
.big {
  font-size: 1.4rem;
  font-weight: 600;
}
.waits {
  font-size: 1.15rem;
  font-family: var(--head);
}
.inputs,
.need {
  line-height: 1.25;
  overflow: hidden;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  -webkit-box-orient: vertical;
  text-align: left;
}
p.need {
  color: var(--ink-soft);
}
button.need {
  border: 0;
  background: none;
  padding: 0;
  color: var(--hand);
  text-decoration: underline;
  max-width: 100%;
}
</style>
