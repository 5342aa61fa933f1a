<script setup lang="ts">
/** Percentile of one measure over every filter of this size in the database: how all lie, the filters of the sheet as points. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { inUnit, type UnitFamily } from '@/catalogue/units'
import { roundLevels } from '@/shared/scales'
import { significant } from '@/shared/numbers'
import { percentileWords } from './sheetRows'

const props = defineProps<{ place: Schemas['PercentileOut']; label: string; others: { label: string; colour: string; value: number }[]; family: UnitFamily }>()
const WIDTH = 640
const LEFT = 130
const unit = computed(() => props.place[props.family])
const quantiles = computed(() => props.place.quantiles.map((quantile) => inUnit(quantile, unit.value)))
const points = computed(() => props.others.map((other) => ({ ...other, value: inUnit(other.value, unit.value) })))
const ends = computed(() => {
  const all = [...quantiles.value, ...points.value.map((point) => point.value)]
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const margin = (high - low || Math.abs(high) || 1) * 0.06
  return { low: low - margin, high: high + margin }
})
const at = (value: number) => LEFT + ((value - ends.value.low) / (ends.value.high - ends.value.low)) * (WIDTH - LEFT - 14)
const ticks = computed(() => roundLevels(ends.value.low, ends.value.high, 6))
/** From the outermost to the middle half. */
const bands = computed(() => {
  const q = quantiles.value
  return q.length === 7 ? [[q[0]!, q[6]!], [q[1]!, q[5]!], [q[2]!, q[4]!]] : []
})
const words = computed(() => percentileWords(props.place, props.label, props.family))
</script>

<template>
  <figure>
    <svg v-if="bands.length" class="chart strip" :viewBox="`0 0 ${WIDTH} 52`" role="img" :aria-label="words">
      <g v-for="tick in ticks" :key="tick">
        <line class="grid" :x1="at(tick)" :x2="at(tick)" y1="4" y2="32" />
        <text class="middle" :x="at(tick)" y="46">{{ significant(tick, 3) }}</text>
      </g>
      <text class="end" :x="LEFT - 8" y="22">{{ place.count }} others</text>
      <rect v-for="(band, i) in bands" :key="i" class="band" :class="`band-${i}`" :x="at(band[0]!)" :width="Math.max(1.5, at(band[1]!) - at(band[0]!))" y="11" height="14" />
      <line class="median" :x1="at(quantiles[3]!)" :x2="at(quantiles[3]!)" y1="9" y2="27" />
      <circle v-for="point in points" :key="point.label" :cx="at(point.value)" cy="18" r="4" :fill="point.colour" stroke="var(--paper)" />
    </svg>
    <figcaption class="soft">{{ words }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0.2rem 0 0.4rem;
}
.strip {
  max-width: 40rem;
}
.band {
  fill: var(--slate);
}
.band-0 {
  fill-opacity: 0.15;
}
.band-1 {
  fill-opacity: 0.2;
}
.band-2 {
  fill-opacity: 0.3;
}
.median {
  stroke: var(--ink-soft);
}
</style>
