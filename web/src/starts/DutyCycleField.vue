<script setup lang="ts">
/** The duty cycle of a start: a shipped one, or one read from a CSV file. */
import { computed } from 'vue'
import { catalogue } from '@/catalogue/catalogue'
import { readTextFile } from '@/shared/readTextFile'
import ChoiceField from '@/shared/ChoiceField.vue'
import { useRefusal } from '@/shared/useRefusal'

const props = defineProps<{
  chosen: string
  cycles: readonly string[]
  choose: (name: string) => Promise<unknown>
  read: (name: string, text: string) => Promise<unknown>
}>()
const options = computed(() => props.cycles.map((cycle) => ({ value: cycle, label: cycle })))
const { refused: said, guarded: run } = useRefusal()

async function onFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const name = file.name.replace(/\.[^.]*$/, '')
  await run(async () => {
    await props.read(name, await readTextFile(file, catalogue().duty_cycle_bytes))
    await props.choose(name)
  })
  input.value = ''
}
</script>

<template>
  <div class="cycle small" data-key="plan.duty_cycle">
    <span>Duty cycle</span>
    <ChoiceField input-id="duty-cycle" :model-value="chosen" :options="options" label="Duty cycle" @update:model-value="run(() => choose($event))" />
    <label class="file">read CSV … <input type="file" accept=".csv,text/csv" aria-label="Read a duty cycle from CSV" @change="onFile" /></label>
    <p v-if="said" class="said-wrong fine flush" role="alert">{{ said }}</p>
    <p v-else class="soft fine flush">time_s, speed_rpm and, if recorded, oil_temperature_c, which then is the trace.</p>
  </div>
</template>

<style scoped>
.cycle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.2rem 0.6rem;
  align-items: center;
}
.cycle > span {
  grid-column: 1 / -1;
}
.file {
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  padding: 0.2rem 0.5rem;
  cursor: pointer;
}
.file input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.file:focus-within {
  outline: 2px solid var(--hand);
}
p {
  grid-column: 1 / -1;
}
</style>
