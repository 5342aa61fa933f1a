<script setup lang="ts">
/** The range that rounded inputs allow against what the printed result stands for: where they meet, the line follows. */
import { computed } from 'vue'

const props = defineProps<{ computedLow: number; computedHigh: number; printedLow: number; printedHigh: number }>()

const WIDTH = 200
const ends = computed(() => {
  const low = Math.min(props.computedLow, props.printedLow)
  const high = Math.max(props.computedHigh, props.printedHigh)
  const room = (high - low || Math.abs(high) || 1) * 0.12
  return { low: low - room, high: high + room }
})
const at = (value: number) => ((value - ends.value.low) / (ends.value.high - ends.value.low)) * WIDTH
/** Never thinner than can be seen. */
const bar = (low: number, high: number) => ({ x: at(low), width: Math.max(2, at(high) - at(low)) })
</script>

<template>
  <svg :width="WIDTH" height="20" :viewBox="`0 0 ${WIDTH} 20`" aria-hidden="true">
    <line x1="0" :x2="WIDTH" y1="10" y2="10" class="axis" />
    <rect v-bind="bar(computedLow, computedHigh)" y="3" height="6" class="allowed" />
    <rect v-bind="bar(printedLow, printedHigh)" y="11" height="6" class="printed" />
  </svg>
</template>

<style scoped>
.axis {
  stroke: var(--line);
}
.allowed {
  fill: var(--hand);
}
.printed {
  fill: var(--amber);
}
</style>
