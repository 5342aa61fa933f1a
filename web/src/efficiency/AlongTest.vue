<script setup lang="ts">
/** The test along time in two small charts: efficiency at one size, and the media's differential pressure over retained dust. */
import { computed, ref, watchEffect } from 'vue'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/shared/ChartFrame.vue'
import { linePath, zeroBasedScale } from '@/shared/scales'
import { plainNumber, significant } from '@/shared/numbers'

const props = defineProps<{ test: Schemas['CountedTestOut'] }>()
const BOX = { left: 40, right: 512, top: 8, bottom: 122 }

const chosen = ref(0)
watchEffect(() => {
  const near20 = props.test.points.reduce((nearest, point, i) => (Math.abs(point.size_um - 20) < Math.abs(props.test.points[nearest]!.size_um - 20) ? i : nearest), 0)
  chosen.value = near20
})
const along = computed(() => props.test.along)
const point = computed(() => props.test.points[chosen.value])
const range = computed<[number, number]>(() => {
  const ends = [...(along.value.low_percent[chosen.value] ?? []), ...(along.value.high_percent[chosen.value] ?? []), ...(along.value.percent[chosen.value] ?? [])].filter((item) => item !== null)
  return ends.length ? [Math.max(-100, Math.min(...ends)), Math.max(...ends)] : [0, 100]
})
const time = computed(() => zeroBasedScale(Math.max(...along.value.time_min, 1), BOX.left, BOX.right, 8))
const percent = computed(() => {
  const [low, high] = range.value
  const margin = Math.max((high - low) * 0.15, 0.2)
  const [from, to] = [low - margin, Math.min(100, high + margin)]
  const at = (value: number) => BOX.bottom + ((BOX.top - BOX.bottom) * (value - from)) / (to - from)
  const step = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50].find((item) => (to - from) / item <= 5) ?? 100
  const ticks = Array.from({ length: Math.floor(to / step) - Math.ceil(from / step) + 1 }, (_, i) => Number(((Math.ceil(from / step) + i) * step).toFixed(2)))
  return { at, up: ticks.map((tick) => ({ at: at(tick), label: plainNumber(tick, 6) })) }
})
const marks = computed(() =>
  along.value.time_min.map((minutes, i) => {
    const value = along.value.percent[chosen.value]?.[i] ?? null
    const low = along.value.low_percent[chosen.value]?.[i] ?? null
    const high = along.value.high_percent[chosen.value]?.[i] ?? null
    return { key: i, x: time.value.at(minutes), y: value === null ? null : percent.value.at(value), low: percent.value.at(low ?? range.value[0]), high: percent.value.at(high ?? 100), used: along.value.is_used[i] ?? true }
  }),
)
const dust = computed(() => zeroBasedScale(Math.max(...along.value.retained_g, 1), BOX.left, BOX.right, 8))
const ratio = computed(() => zeroBasedScale(Math.max(...along.value.ratio, props.test.terminal_ratio) * 1.05, BOX.bottom, BOX.top, 4))
const loading = computed(() =>
  along.value.ratio.length > 1 ? linePath(along.value.retained_g.map((grams) => dust.value.at(grams)), along.value.ratio.map((item) => ratio.value.at(item))) : '',
)
const shown = (value: number | null) => (value === null ? 'none' : `${significant(value, 3)} %`)
const capacity = computed(() => {
  const nearest = props.test.capacity_g
  if (nearest.value !== null) return `${significant(nearest.value, 3)} g of test dust at ${significant(props.test.terminal_ratio, 2)} times the clean differential pressure`
  if (nearest.low !== null) return `at least ${significant(nearest.low, 3)} g: the test ended before ${significant(props.test.terminal_ratio, 2)} times the clean differential pressure`
  return ''
})
</script>

<template>
  <section class="along" aria-label="The test along time">
    <div>
      <h3>
        Along the test, at
        <select v-model="chosen" aria-label="Counted size shown along the test">
          <option v-for="(point, i) in test.points" :key="point.size_um" :value="i">{{ point.size_um }} µm</option>
        </select>
      </h3>
      <svg class="chart" viewBox="0 0 520 152" role="img" :aria-label="`Efficiency at ${point?.size_um} µm along ${marks.length} intervals, from ${significant(range[0], 3)} to ${significant(range[1], 3)} %.`">
        <ChartFrame v-bind="BOX" :across="time.ticks.map((tick) => ({ at: time.at(tick), label: tick }))" :up="percent.up" />
        <g v-for="mark in marks" :key="mark.key" :class="{ out: !mark.used }">
          <title v-if="!mark.used">{{ along.why_not[mark.key] }}</title>
          <path v-if="marks.length <= 60" class="interval" :d="`M${mark.x} ${mark.low}V${mark.high}`" />
          <circle v-if="mark.y !== null" class="point" :cx="mark.x" :cy="mark.y" :r="marks.length > 60 ? 1.2 : 3.2" />
        </g>
        <text class="middle" :x="(BOX.left + BOX.right) / 2" y="149">efficiency, % over time, min</text>
      </svg>
      <p v-if="point" class="fine">Lowest {{ shown(point.lowest_percent) }}, average {{ shown(point.average_percent) }}, last {{ shown(point.last_percent) }}: three different claims.</p>
    </div>
    <div>
      <h3>Dust and differential pressure</h3>
      <svg v-if="loading" class="chart" viewBox="0 0 520 152" role="img" :aria-label="`The media's own differential pressure over its clean value, against retained dust, up to ${significant(Math.max(...along.retained_g), 3)} g. Capacity ${capacity}.`">
        <ChartFrame v-bind="BOX" :across="dust.ticks.map((tick) => ({ at: dust.at(tick), label: tick }))" :up="ratio.ticks.map((tick) => ({ at: ratio.at(tick), label: tick }))" />
        <path class="terminal" :d="`M${BOX.left} ${ratio.at(test.terminal_ratio)}H${BOX.right}`" />
        <path class="loading" :d="loading" />
        <circle v-for="(grams, i) in along.retained_g" :key="i" class="point" :cx="dust.at(grams)" :cy="ratio.at(along.ratio[i]!)" r="2.6" />
        <text class="middle" :x="(BOX.left + BOX.right) / 2" y="149">times clean over retained dust, g</text>
      </svg>
      <p v-else class="soft fine">No loading curve yet: {{ along.missing.join(' and ') || 'no dust was injected' }} {{ along.missing.length > 1 ? 'are' : 'is' }} not stated.</p>
      <p v-if="capacity" class="fine" data-efficiency="capacity">Holds {{ capacity }}. It compares filters; the dirt of an engine is another.</p>
    </div>
  </section>
</template>

<style scoped>
.along {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 1rem;
}
h3 {
  font-size: 0.95rem;
  margin-bottom: 0.2rem;
}
.chart :deep(text) {
  font-size: 12.2px;
}
select {
  font: inherit;
  color: inherit;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 6px;
}
.point {
  fill: var(--hand);
}
.interval {
  stroke: var(--hand);
  stroke-width: 1.2;
}
.out {
  opacity: 0.35;
}
.loading {
  fill: none;
  stroke: var(--hand);
  stroke-width: 1.8;
}
.terminal {
  stroke: var(--rust);
  stroke-dasharray: 5 3;
}
.fine {
  font-size: 0.84rem;
  margin: 0.2rem 0 0;
}
</style>
