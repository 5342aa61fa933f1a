<script setup lang="ts">
/** Why something cannot be computed yet, and where to correct it. */
import { computed } from 'vue'
import { ProblemError } from '@/api/client'
import type { Sheet } from '@/sample/useSheet'
import { fieldOf, inputName } from '@/catalogue/inputs'
import { stationOfKey } from '@/sample/stations'

const props = defineProps<{ error: Error; what: string; titles: ReadonlyMap<string, string>; sheet: Sheet | undefined }>()
const where = computed(() => (props.error instanceof ProblemError ? props.error.where : ''))
const missing = computed(() => (props.error instanceof ProblemError ? props.error.missing : []))
const to = (key: string) => {
  const field = fieldOf(key, props.titles)
  return field ? { name: stationOfKey(field, props.sheet), query: { field } } : null
}
</script>

<template>
  <div class="trouble">
    <h2>{{ what }} cannot be computed yet</h2>
    <template v-if="missing.length">
      <p>It needs these of the filter, the oil or the engine:</p>
      <ul>
        <li v-for="key in missing" :key="key">
          <router-link v-if="to(key)" :to="to(key)!">{{ inputName(key, titles) }}</router-link>
          <template v-else>{{ inputName(key, titles) }} <span class="soft">(comes with the study document, as {{ key }})</span></template>
        </li>
      </ul>
    </template>
    <p v-else class="said-wrong">
      <router-link v-if="where && to(where)" :to="to(where)!">{{ inputName(where, titles) }}</router-link>
      <template v-else-if="where">{{ inputName(where, titles) }}</template>
      {{ error.message }}
    </p>
  </div>
</template>

<style scoped>
.trouble {
  padding: 1.5rem 0;
}
</style>
