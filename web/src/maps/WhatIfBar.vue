<script setup lang="ts">
/** Across the head of every view while something is thought to be different: each changed input by name, each with its reset. */
import { computed } from 'vue'
import { useMapPlace } from './mapPlace'
import { changedInputs } from './scenario'
import { useKeys } from '@/shared/useKeys'
import { usePreferences } from '@/shared/preferences'

const place = useMapPlace()
const preferences = usePreferences()
const changed = computed(() => changedInputs(place.draft, preferences.family))

function reset() {
  place.draft = { name: 'what if' }
}
useKeys([
  {
    keys: 'Alt+W',
    does: 'what if: everything as it is again',
    matches: (event) => event.altKey && !event.ctrlKey && event.code === 'KeyW' && changed.value.length > 0,
    run: reset,
    inFields: true,
    words: ['what if', 'reset', 'as it is', 'scenario off'],
  },
])
</script>

<template>
  <section v-if="changed.length" class="what-if row wrap small" aria-label="What if" data-what-if>
    <strong>What if</strong>
    <span class="soft">in map, comparison and warm-up:</span>
    <span v-for="input in changed" :key="input.words" class="changed nowrap">
      {{ input.words }}
      <button type="button" class="tool" :aria-label="`${input.words}: as it is again`" @click="place.draft = { ...place.draft, ...input.reset }">×</button>
    </span>
    <button type="button" class="tool" title="Alt+W" @click="reset">all as it is</button>
  </section>
</template>

<style scoped>
.what-if {
  gap: 0.2rem 0.7rem;
  padding: 0.15rem 1rem;
  background: var(--hand-wash);
  border-bottom: 2px dashed var(--line-strong);
}
.changed {
  display: inline-flex;
  align-items: center;
  gap: 0.2rem;
}
</style>
