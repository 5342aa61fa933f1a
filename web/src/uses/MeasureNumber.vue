<script setup lang="ts">
/** A number of a measure: understood by the server with or without a unit, shown in the chosen family; empty for none. */
import { computed, ref, watch } from 'vue'
import { client, unwrap } from '@/api/client'
import { useRefusal } from '@/shared/useRefusal'
import { usePreferences } from '@/shared/preferences'
import { inUnit } from '@/catalogue/units'
import type { Measure } from './useUses'

const props = defineProps<{
  /** Key of the measure, or `temperature_c`, `speed_rpm` or `weight`. */
  measure: string
  value: number | null | undefined
  units: Pick<Measure, 'metric' | 'inch'>
  label: string
  take: (value: number | null) => Promise<unknown>
  placeholder?: string
}>()
const preferences = usePreferences()
const shown = computed(() => (props.value == null ? '' : String(Number(inUnit(props.value, props.units[preferences.family]).toPrecision(5)))))
const text = ref('')
watch(shown, (now) => (text.value = now), { immediate: true })
const { refused, guarded } = useRefusal()
const id = `measure-number-${Math.random().toString(36).slice(2)}`

async function onTyped() {
  const typed = text.value.trim()
  if (typed === shown.value) return void (refused.value = '')
  const { take } = props // of the line that it was typed for, though another one may be shown before the answer is there
  await guarded(async () => {
    const body = { measure: props.measure, text: typed, family: preferences.family }
    const value = typed === '' ? null : (await unwrap(client.POST('/api/measure-number', { body }))).value
    await take(value)
    text.value = shown.value
  })
}

function drop() {
  text.value = shown.value
  refused.value = ''
}
</script>

<template>
  <span class="measure-number">
    <input
      v-model="text"
      class="typed"
      :aria-label="label"
      :placeholder="placeholder"
      :aria-invalid="refused ? true : undefined"
      :aria-describedby="refused ? id : undefined"
      :data-unsaved="text.trim() === shown ? undefined : label"
      autocomplete="off"
      inputmode="text"
      @change="onTyped"
      @keydown.esc="drop"
    />
    <span v-if="refused" :id="id" class="said-wrong fine" role="alert">{{ refused }}</span>
  </span>
</template>

<style scoped>
.measure-number {
  display: inline-flex;
  flex-direction: column;
}
input {
  width: 5rem;
  text-align: right;
}
.said-wrong {
  max-width: 14rem;
}
</style>
