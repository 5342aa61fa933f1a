<script setup lang="ts">
/** Several details, one below the other, with the saved value of each. */
import type { Schemas } from '@/api/client'
import type { UnitFamily } from '@/catalogue/units'
import DetailField from './DetailField.vue'

defineProps<{
  sampleId: number
  details: readonly Schemas['DetailOut'][]
  texts: Readonly<Record<string, string>>
  questions?: Readonly<Record<string, string>>
  numbers?: Readonly<Record<string, Schemas['DetailValueOut']>>
  family: UnitFamily
  /** Revisions of the sheet. */
  revisions: Readonly<Record<string, number>>
  /** Words to choose from, by detail. */
  options?: Readonly<Record<string, readonly string[]>>
  set: (key: string, detail: Schemas['DetailIn'], revision: number) => Promise<unknown>
}>()
defineEmits<{ next: [isArrow?: boolean]; previous: [] }>()
</script>

<template>
  <template v-for="detail in details" :key="detail.key">
    <DetailField
      :sample-id="sampleId"
      :detail="detail"
      :value="texts[detail.key] ?? ''"
      :number="numbers?.[detail.key]"
      :revision="revisions[`details/${detail.key}`] ?? 0"
      :question="questions?.[detail.key]"
      :family="family"
      :options="options?.[detail.key] ?? []"
      :set="set"
      @next="$emit('next', $event)"
      @previous="$emit('previous')"
    />
    <slot name="after" :detail="detail" />
  </template>
</template>
