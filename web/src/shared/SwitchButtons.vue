<script setup lang="ts" generic="T extends string">
/** One of a few: always exactly one is chosen. */
import SelectButton from 'primevue/selectbutton'

defineProps<{ options: readonly { label: string; value: T }[]; label: string; small?: boolean }>()
const chosen = defineModel<T>({ required: true })

function choose(value: T | null) {
  if (value !== null) chosen.value = value
}
</script>

<template>
  <SelectButton
    :model-value="chosen"
    :options="[...options]"
    option-label="label"
    option-value="value"
    :allow-empty="false"
    :size="small ? 'small' : undefined"
    :aria-label="label"
    @update:model-value="choose"
  />
</template>
