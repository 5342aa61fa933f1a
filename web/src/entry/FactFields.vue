<script setup lang="ts">
/** Several facts, one below the other, with what is kept of each. */
import type { Schemas } from '@/api/client'
import type { UnitFamily } from '@/shared/units'
import FactField from './FactField.vue'

defineProps<{
  facts: readonly Schemas['FactOut'][]
  texts: Readonly<Record<string, string>>
  family: UnitFamily
  /** Words to choose from, by fact. */
  options?: Readonly<Record<string, readonly string[]>>
  set: (fact: Schemas['FactIn']) => Promise<unknown>
}>()
defineEmits<{ next: []; previous: [] }>()
</script>

<template>
  <FactField
    v-for="fact in facts"
    :key="fact.key"
    :fact="fact"
    :value="texts[fact.key] ?? ''"
    :family="family"
    :options="options?.[fact.key] ?? []"
    :set="set"
    @next="$emit('next')"
    @previous="$emit('previous')"
  />
</template>
