<script setup lang="ts">
/** One filter for one use: what follows from the lines, each with its reason, and the analyst's own verdict beside it. */
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import ChoiceField from '@/shared/ChoiceField.vue'
import { useRefusal } from '@/shared/useRefusal'
import { VERDICTS, type Verdict } from './ranking'
import type { Use } from './useUses'

const props = defineProps<{
  label: string
  verdict: Schemas['FilterVerdictOut']
  lines: readonly Schemas['JudgedRequirementOut'][]
  use: Use
  /** Title of the key of a reading, detail, observation or result, if it leads somewhere. */
  titleOf: (key: string) => string | null
  change: (changed: (use: Use) => Use) => Promise<unknown>
}>()
const emit = defineEmits<{ field: [key: string] }>()
const { refused, guarded } = useRefusal()

const STATES = { met: 'met', failed: 'failed', open: 'not judged' } as const
const chosen = ref<string>('')
const reason = ref('')
watch(
  () => [props.label, props.verdict.stated?.verdict, props.verdict.stated?.reason],
  () => {
    chosen.value = props.verdict.stated?.verdict ?? ''
    reason.value = props.verdict.stated?.reason ?? ''
  },
  { immediate: true },
)
const options = [
  { value: '', label: 'none of my own' },
  ...(['meets', 'open', 'fails'] as const).map((value) => ({ value, label: VERDICTS[value].long })),
]
const unsaved = computed(() => chosen.value !== (props.verdict.stated?.verdict ?? '') || reason.value.trim() !== (props.verdict.stated?.reason ?? ''))
const openLines = computed(() => props.lines.filter((line) => line.state === 'open' && line.counts))
/** Fields that would decide, each once. */
const deciding = computed(() => [...new Set(openLines.value.map((line) => line.decided_by))].filter((key): key is string => Boolean(key && props.titleOf(key))))

async function save() {
  const { label } = props
  const [verdict, text] = [chosen.value, reason.value.trim()]
  await guarded(() =>
    props.change((now) => {
      const others = (now.verdicts ?? []).filter((item) => item.sample !== label)
      return { ...now, verdicts: verdict ? [...others, { sample: label, verdict: verdict as Verdict, reason: text }] : others }
    }),
  )
}
const needsReason = computed(() => Boolean(chosen.value) && !reason.value.trim())
</script>

<template>
  <div class="verdict-of small">
    <h3>
      {{ label }}, {{ use.name }}:
      <span :class="verdict.proposed">{{ VERDICTS[verdict.proposed].long }}</span>
      <template v-if="verdict.stated">
        · your own: <span :class="verdict.stated.verdict">{{ VERDICTS[verdict.stated.verdict].long }}</span>
        <span v-if="verdict.stated.reason" class="soft"> ({{ verdict.stated.reason }})</span>
      </template>
    </h3>
    <p v-if="openLines.length && verdict.proposed === 'open'" class="soft fine">
      Not judged in full, because {{ openLines.length === 1 ? 'one line is' : `${openLines.length} lines are` }} not decided.
      <template v-for="(key, i) in deciding" :key="key">
        {{ i ? 'and' : 'What would decide:' }}
        <button type="button" class="number-link" @click="emit('field', key)">{{ titleOf(key) }}</button>
      </template>
      <template v-if="openLines.some((line) => !line.decided_by)"> A finer value would decide where one may lie on either side.</template>
    </p>
    <table aria-label="Requirements, line by line">
      <tbody>
        <tr v-for="line in lines" :key="line.measure + line.reason" :data-line="line.measure" :class="{ aside: !line.counts }">
          <th scope="row" :class="line.state">{{ line.counts ? STATES[line.state] : `decides nothing (${STATES[line.state]})` }}</th>
          <td>{{ line.reason }}</td>
          <td class="soft">{{ line.is_asked_of_every_use ? 'asked of every use' : 'your requirement' }}</td>
          <td>
            <button v-if="line.decided_by && titleOf(line.decided_by)" type="button" class="number-link" @click="emit('field', line.decided_by)">{{ titleOf(line.decided_by) }}</button>
          </td>
        </tr>
      </tbody>
    </table>
    <form class="row wrap" :data-unsaved="unsaved ? `verdict on ${label}` : undefined" @submit.prevent="save">
      <span id="own-verdict">your own verdict</span>
      <ChoiceField v-model="chosen" :options="options" label="Your own verdict" />
      <label class="because row">because <input v-model="reason" autocomplete="off" aria-label="Reason of your own verdict" /></label>
      <button type="submit" class="tool" :disabled="!unsaved || needsReason">set it</button>
      <span v-if="needsReason" class="soft">give your reason: both verdicts stand beside each other</span>
    </form>
    <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
    <p class="soft fine">
      Which filters may be fitted, and how often they are changed, is the vehicle maker's instruction to say; nothing here says that a filter fits or is safe.
    </p>
  </div>
</template>

<style scoped>
h3 {
  font-size: 1rem;
  margin: 0 0 0.3rem;
}
h3 .soft {
  font-weight: 400;
}
.fails,
th.failed {
  color: var(--rust);
}
.meets,
th.met {
  color: var(--hand);
}
table {
  margin-bottom: 0.6rem;
}
th {
  font-weight: 600;
  white-space: nowrap;
  vertical-align: top;
}
td,
th {
  padding: 0.2rem 1rem 0.2rem 0;
  border-bottom: 1px solid var(--line);
}
.aside th,
.aside td {
  color: var(--ink-soft);
  font-weight: 400;
}
td {
  vertical-align: top;
}
td.soft,
td:last-child {
  white-space: nowrap;
}
.because {
  flex: 1 1 20rem;
}
.because input {
  flex: 1;
}
.fine {
  margin: 0.4rem 0;
}
</style>
