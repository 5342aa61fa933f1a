<script setup lang="ts">
/** Axes of a small chart: frame lines, round ticks with their numbers. */
export interface Tick {
  at: number
  label: string | number
}

defineProps<{ left: number; right: number; top: number; bottom: number; across: readonly Tick[]; up: readonly Tick[] }>()
</script>

<template>
  <g class="frame">
    <path class="axis" :d="`M${left} ${top}V${bottom}H${right}`" />
    <g v-for="tick in up" :key="tick.label">
      <path class="grid" :d="`M${left} ${tick.at}H${right}`" />
      <text class="end" :x="left - 4" :y="tick.at + 3.5">{{ tick.label }}</text>
    </g>
    <text v-for="tick in across" :key="tick.label" class="middle" :x="tick.at" :y="bottom + 12">{{ tick.label }}</text>
  </g>
</template>
