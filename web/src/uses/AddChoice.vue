<script setup lang="ts">
/** Something to add, chosen from a list; the box is empty again for the next one. */
import { nextTick, ref } from 'vue'
import ChoiceField, { type Option } from '@/shared/ChoiceField.vue'

defineProps<{ options: readonly Option[]; label: string; searched?: boolean }>()
const emit = defineEmits<{ add: [value: string] }>()
const chosen = ref('')

async function onChosen(value: string) {
  if (value) emit('add', value)
  await nextTick()
  chosen.value = ''
}
</script>

<template>
  <ChoiceField v-model="chosen" :options="options" :label="label" :searched="searched" @update:model-value="onChosen" />
</template>
