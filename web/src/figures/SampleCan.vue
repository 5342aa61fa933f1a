<script setup lang="ts">
/** A small can to scale with its sample's colour; dashed at a typical size where it was not measured. */
import { computed } from 'vue'

const props = defineProps<{ heightMm: number | null; diameterMm: number | null; colour: string; scale: number }>()

const TYPICAL_HEIGHT_MM = 90
const TYPICAL_DIAMETER_MM = 76

const measured = computed(() => props.heightMm !== null && props.diameterMm !== null)
const h = computed(() => (props.heightMm ?? TYPICAL_HEIGHT_MM) * props.scale)
const w = computed(() => (props.diameterMm ?? TYPICAL_DIAMETER_MM) * props.scale)
const dome = computed(() => Math.min(w.value * 0.16, h.value * 0.3))
const outline = computed(
  () =>
    `M1 ${h.value - 1}V${1 + dome.value}Q1 1 ${1 + dome.value * 1.4} 1H${w.value - 1 - dome.value * 1.4}` +
    `Q${w.value - 1} 1 ${w.value - 1} ${1 + dome.value}V${h.value - 1}Z`,
)
</script>

<template>
  <svg class="can" :width="w" :height="h" :viewBox="`0 0 ${w} ${h}`" aria-hidden="true">
    <path class="body" :class="{ guessed: !measured }" :d="outline" />
    <rect :x="1.5" :y="h * 0.42" :width="w - 3" :height="h * 0.24" :fill="colour" />
    <path class="seam" :d="`M2 ${h - 4.5}H${w - 2}`" />
  </svg>
</template>

<style scoped>
.body {
  fill: var(--slate-wash);
  stroke: var(--slate);
  stroke-width: 1.6;
}
.body.guessed {
  stroke-dasharray: 4 3;
  fill: none;
}
.seam {
  stroke: var(--slate);
  stroke-width: 1.2;
}
</style>
