<script setup lang="ts">
/** Claims of box, page and people: recorded with source and speaker, checked by readings, marked stale, never dropped. */
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { Schemas } from '@/api/client'
import { useRefusal } from '@/shared/useRefusal'
import { typedId, useTypedForm } from '@/shared/useTyped'
import type { BenchChanges } from '@/sample/useSheet'
import { catalogue, term, terms } from '@/catalogue/catalogue'
import CopiedMark from './CopiedMark.vue'
import ChoiceField from '@/shared/ChoiceField.vue'

const props = defineProps<{
  sampleId: number
  claims: readonly Schemas['ClaimOut'][]
  contradictions: readonly string[]
  changes: BenchChanges
}>()

type Speaker = NonNullable<Schemas['ClaimIn']['speaker']>
const wording = ref('')
const about = ref('')
const value = ref('')
const source = ref('box')
const speaker = ref<string>('maker')
const speakers = Object.entries(terms('speaker')).map(([value, label]) => ({ value, label }))
const seen = ref('')
useTypedForm(() => typedId(props.sampleId, 'claim'), [wording, about, value, seen])
const { refused: said, guarded } = useRefusal()
const staleOf = ref<number | null>(null)
const reason = ref('')
const first = useTemplateRef<HTMLInputElement>('first')
const subjects = computed(() => [
  ...catalogue().quantities.map((quantity) => ({ key: quantity.key, title: `${quantity.part}: ${quantity.title}` })),
  ...catalogue().claimable_results.map((key) => ({ key, title: `Result: ${catalogue().results.find((result) => result.key === key)?.title ?? key}` })),
  ...catalogue().observations.map((observation) => ({ key: observation.key, title: `${catalogue().part_titles[observation.part]}, seen: ${observation.title}` })),
])
/** Capitals and spaces do not matter: what is typed is one of the list, or it is not. */
const plain = (text: string) => text.trim().replace(/\s+/g, ' ').toLowerCase()
const subject = computed(() => subjects.value.find((subject) => plain(subject.title) === plain(about.value)))

async function add() {
  if (about.value.trim() && !subject.value) {
    said.value = `“${about.value}” is no reading, result or observation: choose one of the list, or leave it empty.`
    return
  }
  const claim: Schemas['ClaimIn'] = {
    source: source.value,
    wording: wording.value,
    key: subject.value?.key ?? null,
    value: value.value,
    speaker: speaker.value as Speaker,
    seen: seen.value.trim() || null,
  }
  if (!(await guarded(() => props.changes.addClaim(claim)))) return
  wording.value = about.value = value.value = ''
  await nextTick()
  first.value?.focus()
}

/** Esc empties the field it is pressed in. */
function empty(event: KeyboardEvent) {
  const field = event.target
  if (!(field instanceof HTMLInputElement)) return
  field.value = ''
  field.dispatchEvent(new Event('input', { bubbles: true }))
  said.value = ''
}

async function markStale(claim: Schemas['ClaimOut']) {
  if (!(await guarded(() => props.changes.markStale(claim.id, reason.value)))) return
  staleOf.value = null
  reason.value = ''
}
</script>

<template>
  <section class="claims" data-key="claims">
    <h2>Claims <CopiedMark :things="claims.map((claim) => `claims/${claim.id}`)" of="the claims" /></h2>
    <ul v-if="claims.length">
      <li v-for="claim in claims" :key="claim.id" class="small" :class="claim.verdict" :data-claim="claim.id">
        <span class="verdict">{{ term('verdict', claim.verdict) }}</span>
        <span class="words">
          <span class="said">“{{ claim.words }}”</span>
          <span class="soft source small">
            {{ claim.source }}<template v-if="claim.speaker">, {{ term('speaker', claim.speaker) }}</template
            ><template v-if="claim.seen">, seen {{ claim.seen }}</template> · {{ claim.reason }}
          </span>
        </span>
        <span class="acts">
          <CopiedMark :things="[`claims/${claim.id}`]" named />
          <button v-if="!claim.stale" type="button" @click="staleOf = staleOf === claim.id ? null : claim.id">Stale …</button>
          <button v-else type="button" @click="guarded(() => changes.markStale(claim.id, ''))">Holds again</button>
          <button type="button" @click="guarded(() => changes.removeClaim(claim.id))">Remove</button>
        </span>
        <form v-if="staleOf === claim.id" class="why" @submit.prevent="markStale(claim)">
          <label>stale because <input v-model="reason" required /></label>
          <button type="submit">Mark stale</button>
        </form>
      </li>
    </ul>
    <ul v-if="contradictions.length" class="against" data-contradictions>
      <li v-for="contradiction in contradictions" :key="contradiction" class="said-wrong small">{{ contradiction }}</li>
    </ul>
    <form class="add" data-stop :data-unsaved="wording.trim() || value.trim() ? 'claim' : undefined" @submit.prevent="add" @keydown.escape.stop="empty">
      <label class="wide">
        as printed or said
        <input ref="first" v-model="wording" placeholder="99+ % at 20 µm(c), ISO 4548-12" autocomplete="off" />
      </label>
      <label>
        or a check on
        <input v-model="about" list="claim-subjects" autocomplete="off" placeholder="media: strip length" />
        <datalist id="claim-subjects">
          <option v-for="subject in subjects" :key="subject.key" :value="subject.title" />
        </datalist>
      </label>
      <label>
        which shall be <input v-model="value" class="typed" autocomplete="off" placeholder=">= 1.5 m" />
      </label>
      <label>where <input v-model="source" list="claim-sources" autocomplete="off" /></label>
      <datalist id="claim-sources"><option>box</option><option>can</option><option>page</option><option>letter</option></datalist>
      <span class="says">says <ChoiceField v-model="speaker" :options="speakers" label="Who says it" /></span>
      <label>seen on <input v-model="seen" class="typed date" placeholder="3 Oct 2026" autocomplete="off" /></label>
      <button type="submit">Save the claim</button>
    </form>
    <p v-if="said" class="said-wrong" role="alert">{{ said }}</p>
  </section>
</template>

<style scoped>
ul {
  margin: 0.3rem 0;
}
li {
  display: grid;
  grid-template-columns: 5.6rem minmax(0, 1fr) auto;
  gap: 0.2rem 0.6rem;
  align-items: baseline;
  border-top: 1px solid var(--line);
  padding: 0.3rem 0;
}
.against li {
  display: block;
}
.verdict {
  font-family: var(--head);
  font-weight: 600;
  font-size: var(--fine);
  color: var(--ink-soft);
}
.confirmed .verdict {
  color: var(--hand);
}
.refuted .verdict {
  color: var(--rust);
}
.source {
  display: block;
}
.stale .said {
  text-decoration: line-through;
}
.why {
  grid-column: 2 / -1;
  display: flex;
  gap: 0.5rem;
}
.acts {
  display: flex;
  gap: 0.3rem;
}
.add {
  display: grid;
  grid-template-columns: 2fr 1.4fr 1fr 1fr 1fr auto;
  gap: 0.4rem 0.6rem;
  align-items: end;
  border-top: 1px solid var(--line);
  padding-top: 0.45rem;
}
.add label,
.add .says {
  display: flex;
  flex-direction: column;
  font-size: var(--fine);
  color: var(--ink-soft);
}
.add .wide {
  grid-column: 1 / -1;
}
input,
select,
button {
  font-size: var(--small);
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  padding: 0.25rem 0.5rem;
  min-width: 0;
}
.acts button {
  font-size: var(--fine);
  padding: 0.05rem 0.45rem;
}
</style>
