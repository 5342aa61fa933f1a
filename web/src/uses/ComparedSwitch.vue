<script setup lang="ts">
/** Whether part numbers are compared or these specimens only, and what that means for every uncertainty. */
import SwitchButtons from '@/shared/SwitchButtons.vue'
import type { Compared } from './useJudged'

const compared = defineModel<Compared>({ required: true })
const COMPARED = [
  { label: 'Part numbers', value: 'part_numbers' },
  { label: 'These specimens', value: 'specimens' },
] as const
</script>

<template>
  <SwitchButtons v-model="compared" :options="COMPARED" label="What is compared" small />
  <p class="soft heading">
    {{ compared === 'specimens' ? 'These specimens only: another one of the same part may differ.' : 'Part numbers: every U holds what specimens differ by, assumed where there is one.' }}
  </p>
</template>
