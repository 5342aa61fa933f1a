<script setup lang="ts">
/** The test along time in two small charts: efficiency at one size, and the media's differential pressure over retained dust. */
import { computed, ref, watchEffect } from 'vue'
import type { Schemas } from '@/api/client'
import LineChart from '@/shared/LineChart.vue'
import { linear } from '@/shared/charts'
import { significant } from '@/shared/numbers'

const props = defineProps<{ test: Schemas['CountedTestOut'] }>()

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
const efficiency = computed(() => {
  const [low, high] = range.value
  const margin = Math.max((high - low) * 0.15, 0.2)
  const many = along.value.time_min.length > 60
  const of = (values: readonly (readonly (number | null)[])[], i: number) => values[chosen.value]?.[i] ?? null
  const ends = (i: number) => (many ? {} : { low: of(along.value.low_percent, i) ?? low, high: of(along.value.high_percent, i) ?? high })
  return {
    x: { ...linear(0, Math.max(...along.value.time_min, 1), 'efficiency, % over time, min', { count: 8 }), name: 'min' },
    y: linear(low - margin, Math.min(100, high + margin), '', { count: 5 }),
    lines: [{ key: 'efficiency', name: 'E, %', xs: along.value.time_min, ys: along.value.time_min.map((_, i) => of(along.value.percent, i)), ink: 'var(--hand)', width: 0, isPoints: true }],
    points: along.value.time_min.map((minutes, i) => ({
      key: i,
      x: minutes,
      y: of(along.value.percent, i),
      ...ends(i),
      radius: many ? 1.2 : 3.2,
      isFaint: !(along.value.is_used[i] ?? true),
      words: (along.value.is_used[i] ?? true) ? '' : along.value.why_not[i],
    })),
  }
})
const loading = computed(() => {
  const { retained_g: grams, ratio } = along.value
  return {
    x: { ...linear(0, Math.max(...grams, 1), 'times clean over retained dust, g', { count: 8 }), name: 'g' },
    y: linear(0, Math.max(...ratio, props.test.terminal_ratio) * 1.05, '', { count: 4 }),
    lines: [{ key: 'loading', name: 'times clean', xs: grams, ys: ratio, ink: 'var(--hand)' }],
    points: grams.map((held, i) => ({ key: i, x: held, y: ratio[i]!, radius: 2.6 })),
    marks: [{ y: props.test.terminal_ratio, ink: 'var(--rust)', dash: '5 3' }],
  }
})
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
      <LineChart :width="520" :height="152" v-bind="efficiency" :words="`Efficiency at ${point?.size_um} µm along ${efficiency.points.length} intervals, from ${significant(range[0], 3)} to ${significant(range[1], 3)} %.`" />
      <p v-if="point" class="fine">Lowest {{ shown(point.lowest_percent) }}, average {{ shown(point.average_percent) }}, last {{ shown(point.last_percent) }}: three different claims.</p>
    </div>
    <div>
      <h3>Dust and differential pressure</h3>
      <LineChart v-if="along.ratio.length > 1" :width="520" :height="152" v-bind="loading" :words="`The media's own differential pressure over its clean value, against retained dust, up to ${significant(Math.max(...along.retained_g), 3)} g. Capacity ${capacity}.`" />
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
  font-size: 1rem;
  margin-bottom: 0.2rem;
}
.along :deep(.chart text) {
  font-size: 12.2px;
}
.fine {
  margin: 0.2rem 0 0;
}
</style>
