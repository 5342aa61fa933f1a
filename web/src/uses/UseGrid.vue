<script setup lang="ts">
/** Every use against every filter: what is proposed, and what the analyst set beside it. */
import { sampleColour } from '@/shared/sampleColours'
import { VERDICTS } from './ranking'
import type { Judged } from './useJudged'
import type { StoredUse } from './useUses'

const props = defineProps<{
  uses: readonly StoredUse[]
  labels: readonly string[]
  ofUse: ReadonlyMap<number, { data: Judged | undefined; error: Error | null }>
  progress: ReadonlyMap<number, { done: number; of: number }>
  colours: ReadonlyMap<string, number>
  chosenUse: number | null
  chosenLabel: string | null
}>()
const emit = defineEmits<{ choose: [useId: number, label: string | null] }>()

function verdict(use: StoredUse, label: string) {
  const judged = props.ofUse.get(use.id)?.data
  return judged?.use_id === use.id ? judged.verdicts[label] : undefined
}
/** Both verdicts as they are read out; what is seen is part of it. */
function spoken(use: StoredUse, label: string): string {
  const cell = verdict(use, label)
  if (!cell) return ''
  const own = cell.stated ? `yours: ${VERDICTS[cell.stated.verdict].short}` : ''
  return [VERDICTS[cell.proposed].short, cell.about, own].filter(Boolean).join(' ')
}
</script>

<template>
  <table class="grid small" aria-label="Uses and filters">
    <thead class="filters">
      <tr>
        <td />
        <th v-for="label in labels" :key="label" scope="col"><i :style="{ background: sampleColour(colours.get(label) ?? 0) }" />{{ label }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="use in uses" :key="use.id" :data-use="use.use.name">
        <th scope="row">
          <button type="button" class="use" :class="{ on: use.id === chosenUse }" :aria-pressed="use.id === chosenUse" @click="emit('choose', use.id, null)">{{ use.use.name }}</button>
          <span v-if="progress.get(use.id)" class="soft" role="status">{{ progress.get(use.id)!.done }} of {{ progress.get(use.id)!.of }} filters computed</span>
        </th>
        <td v-for="label in labels" :key="label">
          <button
            v-if="verdict(use, label)"
            type="button"
            :class="['cell', verdict(use, label)!.proposed, { on: use.id === chosenUse && label === chosenLabel }]"
            :title="verdict(use, label)!.reasons.join(' ')"
            :aria-label="`${label} for ${use.use.name}: ${spoken(use, label)}`"
            @click="emit('choose', use.id, label)"
          >
            {{ VERDICTS[verdict(use, label)!.proposed].short }}
            <small v-if="verdict(use, label)!.about" class="soft">{{ verdict(use, label)!.about }}</small>
            {{ ' ' }}<small v-if="verdict(use, label)!.stated">yours: {{ VERDICTS[verdict(use, label)!.stated!.verdict].short }}</small>
          </button>
          <span v-else-if="ofUse.get(use.id)?.error" class="soft">cannot be judged</span>
          <span v-else-if="ofUse.get(use.id)?.data" class="soft">other tier</span>
          <span v-else class="soft">…</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.grid {
  border-collapse: separate;
  border-spacing: 3px;
}
th {
  padding: 0 0.3rem;
}
th i {
  display: inline-block;
  width: 0.7rem;
  height: 0.9rem;
  margin-right: 0.35rem;
  vertical-align: -0.1rem;
}
.use {
  border: 0;
  background: none;
  padding: 0.3rem 0.4rem;
  border-left: 3px solid transparent;
  text-decoration: underline;
  text-decoration-style: dotted;
}
.use.on {
  border-color: var(--hand);
  font-weight: 600;
  text-decoration: none;
}
.cell {
  width: 100%;
  min-width: 6.5rem;
  height: 100%;
  padding: 0.2rem 0.3rem;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink-soft);
}
.cell small {
  display: block;
  line-height: 1.2;
  font-size: var(--fine);
}
.cell.meets {
  border: 2px solid var(--hand);
  color: var(--ink);
}
.cell.open {
  border-style: dashed;
}
.cell.fails {
  background: var(--rust-wash);
  color: var(--ink);
  border-color: var(--rust);
}
.cell.on {
  box-shadow: 0 0 0 2px var(--hand);
}
</style>
