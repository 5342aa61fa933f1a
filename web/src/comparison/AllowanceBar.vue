<script setup lang="ts">
/** A difference against what two of one kind may be found apart: inside the band they may be the same. */
import { computed } from 'vue'

const props = defineProps<{ allowances: number }>()

/** So many allowances fit on either side; what is farther out has an arrow. */
const MOST = 3
const HALF = 60
const at = computed(() => HALF + (Math.max(-MOST, Math.min(MOST, props.allowances)) / MOST) * (HALF - 6))
const isFar = computed(() => Math.abs(props.allowances) > MOST)
const band = (HALF - 6) / MOST
const arrow = computed(() => {
  const tip = props.allowances > 0 ? 5 : -5
  return `M${at.value} 3 l${tip} 5 l${-tip} 5 z`
})
</script>

<template>
  <svg :width="2 * HALF" height="16" :viewBox="`0 0 ${2 * HALF} 16`" aria-hidden="true">
    <rect :x="HALF - band" y="3" :width="2 * band" height="10" class="band" />
    <line :x1="HALF" :x2="HALF" y1="1" y2="15" class="level" />
    <path v-if="isFar" :d="arrow" class="out" />
    <circle v-else :cx="at" cy="8" r="3.4" :class="Math.abs(allowances) > 1 ? 'out' : 'in'" />
  </svg>
</template>

<style scoped>
.band {
  fill: var(--slate-wash);
}
.level {
  stroke: var(--line-strong);
}
.out {
  fill: var(--rust);
}
.in {
  fill: var(--slate);
}
</style>
