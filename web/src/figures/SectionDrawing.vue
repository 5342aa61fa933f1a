<script setup lang="ts">
/** The section through the whole filter, with the words of what is drawn in it. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { UnitFamily } from '@/catalogue/units'
import ServedDrawing from './ServedDrawing.vue'

const props = defineProps<{
  section: Schemas['DrawnFilterOut']
  lit: string
  family: UnitFamily
  /** Shares of the oil, where its ways are drawn as wide as what goes there. */
  flow?: { media: number; bypass: number; defects: number }
}>()
defineEmits<{ pick: [key: string] }>()

const WIDEST = 7
const ways = computed(() => {
  if (!props.flow) return undefined
  const { media, bypass, defects } = props.flow
  const wide = (share: number) => (share > 0 ? 0.6 + WIDEST * share : 0)
  return { unfiltered: wide(media + defects), filtered: 0.6 + WIDEST, bypass: wide(bypass), defects: wide(defects) }
})
</script>

<template>
  <figure class="section">
    <ServedDrawing :drawing="section" :lit="lit" :family="family" :ways="ways" class="drawn" @pick="$emit('pick', $event)" />
    <figcaption class="fine soft">
      <span class="unfiltered">unfiltered</span> · <span class="filtered">filtered</span>
      <template v-if="section.svg.includes(&quot;data-way='bypass'&quot;) && !flow"> · <span class="unfiltered">– –</span> past the media when the bypass is open</template>
      <template v-if="section.note"> · {{ section.note }}</template>
    </figcaption>
    <p v-for="problem in section.problems" :key="problem" class="said-wrong">{{ problem }}</p>
  </figure>
</template>

<style scoped>
.drawn {
  height: 20rem;
}
figcaption {
  text-align: center;
}
figcaption .unfiltered {
  color: var(--rust);
}
figcaption .filtered {
  color: var(--amber-ink);
}
</style>
