<script setup lang="ts">
/** Audit of printed sums: lines typed or pasted, each recomputed with the range its rounded inputs allow. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, toRef, watch } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { useRefusal } from '@/shared/useRefusal'
import ComparisonPages from './ComparisonPages.vue'
import RangeBar from './RangeBar.vue'

type Line = Schemas['CheckedLineOut']
const props = defineProps<{ studyId: number; sampleId: number }>()
const studyId = toRef(props, 'studyId')
const queries = useQueryClient()
const sums = useQuery({
  queryKey: queryKeys.arithmetic(studyId),
  queryFn: () => unwrap(client.GET('/api/studies/{study_id}/arithmetic', { params: { path: { study_id: props.studyId } } })),
  retry: false,
})
const { refused, guarded } = useRefusal()

const VERDICTS: Readonly<Record<NonNullable<Line['follows']>, string>> = {
  follows: 'follows',
  follows_with_rounding: 'follows with rounding',
  does_not_follow: 'does not follow',
}

const text = ref('')
const settled = refDebounced(text, 200)
const preview = ref<Line[]>([])
const previewOf = ref('')
watch(settled, async (typed) => {
  if (!typed.trim()) return void (preview.value = [])
  await guarded(async () => {
    const lines = await unwrap(client.POST('/api/arithmetic-preview', { body: { text: typed } }))
    if (typed !== text.value) return
    preview.value = lines
    previewOf.value = typed
  })
})
const understood = computed(() => preview.value.filter((line) => line.follows !== null))
const wrong = computed(() => preview.value.filter((line) => line.follows === null))
/** The lines below belong to this very text. */
const isLooked = computed(() => previewOf.value === text.value && preview.value.length > 0)

async function keep(lines: string) {
  return guarded(async () => {
    const path = { study_id: props.studyId }
    queries.setQueryData(queryKeys.arithmetic(props.studyId), await unwrap(client.POST('/api/studies/{study_id}/arithmetic', { params: { path }, body: { text: lines } })))
  })
}
async function take() {
  if (!isLooked.value || !understood.value.length) return
  const left = wrong.value.map((line) => line.text).join('\n')
  if (await keep(understood.value.map((line) => line.text).join('\n'))) {
    text.value = left
    if (!left) preview.value = []
  }
}
const remove = (id: number) =>
  guarded(async () => {
    const now = await unwrap(client.DELETE('/api/arithmetic/{line_id}', { params: { path: { line_id: id } }, body: {} }))
    queries.setQueryData(queryKeys.arithmetic(props.studyId), now)
  })
const lines = computed(() => sums.data.value?.lines ?? [])
const slips = computed(() => lines.value.filter((line) => line.follows === 'does_not_follow').length)
</script>

<template>
  <div class="comparison-page view">
    <header class="head">
      <ComparisonPages />
      <p class="soft">Audit of printed sums: each is recomputed with the range that its rounded figures allow. It says what would explain a slip, never who made one.</p>
    </header>
    <p v-if="sums.error.value" class="said-wrong">{{ sums.error.value.message }}</p>
    <div v-else class="both fills small">
      <section class="write scrolls" aria-label="Write or paste lines">
        <label for="sum-text">lines, typed or pasted from a table</label>
        <textarea id="sum-text" v-model="text" rows="5" class="typed" spellcheck="false" placeholder="inlet: 8 holes 0.24 in = 0.362 in2" :data-unsaved="text.trim() ? 'lines of arithmetic' : undefined" @keydown.ctrl.enter.prevent="take" />
        <p class="acts row">
          <button type="button" class="tool" :disabled="!isLooked || !understood.length" @click="take">
            keep {{ understood.length === 1 ? 'this line' : `these ${understood.length || ''} lines` }}
          </button>
          <span class="soft">Ctrl+Enter; nothing is kept before</span>
        </p>
        <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
        <ul v-if="text.trim()" class="preview bullets" aria-label="What is understood">
          <li v-for="(line, i) in preview" :key="i" :data-preview="line.follows ?? 'wrong'">
            <template v-if="line.follows"><strong :class="line.follows">{{ VERDICTS[line.follows] }}</strong> {{ line.label }}: {{ line.sentence }}.</template>
            <span v-else class="said-wrong">{{ line.problem }}</span>
          </li>
        </ul>
        <template v-else>
          <h2 class="small">How a line is written</h2>
          <dl>
            <template v-for="formula in sums.data.value?.formulas" :key="formula.name">
              <dt class="soft">{{ formula.words }}</dt>
              <dd class="typed">{{ formula.written }}</dd>
            </template>
          </dl>
          <p class="soft fine">A label and a colon may stand before it. A pasted table has label, formula, inputs and result as columns, tabs or semicolons between.</p>
        </template>
        <template v-if="sums.data.value?.claimed.length">
          <h2 class="small">Sums that claims of this study hold</h2>
          <p v-for="item in sums.data.value.claimed" :key="item.text" class="fine">{{ item.text }} <button type="button" class="tool" @click="keep(item.text)">recompute and keep</button></p>
        </template>
      </section>
      <section class="kept stack fills" aria-label="Kept lines">
        <h2 data-part="summary">
          {{ !lines.length ? 'No line is kept with this study yet' : slips ? `${slips} of ${lines.length} lines ${slips === 1 ? 'does' : 'do'} not follow` : lines.length === 1 ? 'The line follows' : `All ${lines.length} lines follow` }}
        </h2>
        <p v-if="lines.length" class="soft fine"><span class="key allowed" /> what the inputs allow <span class="key printed" /> what the printed figure stands for</p>
        <div class="scroll fills scrolls" tabindex="0" role="region" aria-label="Kept lines, one by one">
          <article v-for="line in lines" :key="line.id!" :data-sum="line.label">
            <p class="typed">{{ line.text }}</p>
            <p>
              <strong :class="line.follows!">{{ VERDICTS[line.follows!] }}</strong>
              <RangeBar :computed-low="line.computed_low!" :computed-high="line.computed_high!" :printed-low="line.printed_low!" :printed-high="line.printed_high!" />
              <button type="button" class="tool" :aria-label="`Remove ${line.label}`" @click="remove(line.id!)">remove</button>
            </p>
            <p class="soft">{{ line.sentence }}.</p>
          </article>
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.both {
  display: flex;
  gap: 1.8rem;
}
.write {
  flex: 0 1 28rem;
}
.acts {
  margin: 0.3rem 0;
}
h2 {
  font-size: 1.05rem;
  margin: 0 0 0.3rem;
}
h2.small {
  font-size: var(--small);
  margin: 0.8rem 0 0.2rem;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.15rem 0.8rem;
}
.preview li {
  margin-bottom: 0.3rem;
}
.scroll {
  border-top: 1px solid var(--line-strong);
}
article {
  border-bottom: 1px solid var(--line);
  padding: 0.35rem 0;
}
article p {
  display: flex;
  align-items: center;
  gap: 0.8rem;
  margin: 0.1rem 0;
}
article .tool {
  margin-left: auto;
}
strong.does_not_follow {
  color: var(--rust);
}
strong.follows {
  color: var(--hand);
}
article strong {
  min-width: 9.5rem;
}
.key {
  display: inline-block;
  width: 1.2rem;
  height: 0.45rem;
  margin: 0 0.2rem 0 0.6rem;
}
.key.allowed {
  background: var(--hand);
  margin-left: 0;
}
.key.printed {
  background: var(--amber);
}
.fine {
  margin: 0.2rem 0;
}
@media (max-width: 1000px) {
  .both {
    flex-direction: column;
    overflow: auto;
  }
}
</style>
