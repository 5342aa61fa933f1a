<script setup lang="ts">
/** One row drawn: every filter's value with its 95 % interval on one axis, bounds as arrows, the reference as a line. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { inUnit, type UnitFamily } from '@/catalogue/units'
import { roundLevels } from '@/shared/scales'
import { significant } from '@/shared/numbers'
import type { Row } from './sheetRows'

const props = defineProps<{ row: Row; columns: readonly Schemas['SheetColumnOut'][]; colours: readonly string[]; family: UnitFamily }>()
const WIDTH = 640
const LEFT = 130
const LINE = 18

const unit = computed(() => props.row[props.family])
const marks = computed(() =>
  props.columns.map((column, i) => {
    const cell = props.row.cells[i]!
    const scale = (value: number | null) => (value === null ? null : inUnit(value, unit.value))
    const value = scale(cell.value)
    const expanded = (cell.expanded_uncertainty ?? 0) * unit.value.factor
    return { column, colour: props.colours[i]!, value, low: value === null ? scale(cell.low) : value - expanded, high: value === null ? scale(cell.high) : value + expanded }
  }),
)
const drawn = computed(() => marks.value.filter((mark) => mark.low !== null || mark.high !== null))
const ends = computed(() => {
  const all = drawn.value.flatMap((item) => [item.low, item.high].filter((end): end is number => end !== null))
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const margin = (high - low || Math.abs(high) || 1) * 0.06
  return { low: low - margin, high: high + margin }
})
const at = (value: number) => LEFT + ((value - ends.value.low) / (ends.value.high - ends.value.low)) * (WIDTH - LEFT - 14)
const ticks = computed(() => roundLevels(ends.value.low, ends.value.high, 6))
const height = computed(() => drawn.value.length * LINE + 24)
const reference = computed(() => marks.value.find((mark) => mark.column.is_reference)?.value ?? null)
</script>

<template>
  <svg v-if="drawn.length" class="chart strip" :viewBox="`0 0 ${WIDTH} ${height}`" role="img" :aria-label="`${row.title}: every filter on one axis, the table has the numbers`">
    <g v-for="tick in ticks" :key="tick">
      <line class="grid" :x1="at(tick)" :x2="at(tick)" y1="0" :y2="height - 20" />
      <text class="middle" :x="at(tick)" :y="height - 6">{{ significant(tick, 3) }}</text>
    </g>
    <line v-if="reference !== null" class="reference" :x1="at(reference)" :x2="at(reference)" y1="0" :y2="height - 20" />
    <g v-for="(item, i) in drawn" :key="item.column.sample_id" :transform="`translate(0 ${i * LINE + LINE / 2})`">
      <text class="end" :x="LEFT - 8" y="4">{{ item.column.label }}</text>
      <line :x1="at(item.low ?? ends.low)" :x2="at(item.high ?? ends.high)" y1="0" y2="0" :stroke="item.colour" :stroke-dasharray="item.value === null ? '3 3' : undefined" stroke-width="2" />
      <circle v-if="item.value !== null" :cx="at(item.value)" cy="0" r="4" :fill="item.colour" />
      <path v-if="item.low === null" :d="`M${at(ends.low) + 6} -4 l-6 4 l6 4`" fill="none" :stroke="item.colour" />
      <path v-if="item.high === null" :d="`M${at(ends.high) - 6} -4 l6 4 l-6 4`" fill="none" :stroke="item.colour" />
    </g>
  </svg>
</template>

<style scoped>
.strip {
  max-width: 40rem;
}
.reference {
  stroke: var(--ink-soft);
  stroke-dasharray: 2 2;
}
</style>
