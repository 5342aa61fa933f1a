<script setup lang="ts">
/** A start over time: pressures and temperatures of the selected sample, and where each filter's bypass is open. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { DASHES, linear } from '@/shared/charts'
import { significant } from '@/shared/numbers'
import { inUnit, shownUnit, type UnitFamily } from '@/catalogue/units'
import LineChart from '@/shared/LineChart.vue'

export interface ShownStart {
  id: number
  label: string
  number: number
  colour: string
  trace: Schemas['WarmUpTraceOut']
}

const props = defineProps<{ starts: readonly ShownStart[]; inHand: number; family: UnitFamily }>()

const [WIDTH, LEFT, RIGHT, ROW] = [640, 46, 628, 13]
const at = ref<number | null>(null)
const kpa = computed(() => shownUnit('kpa', props.family))
const unit = computed(() => shownUnit('c', props.family))
const hand = computed(() => props.starts.find((start) => start.id === props.inHand) ?? props.starts[0])
const end = computed(() => Math.max(1, ...props.starts.map((start) => start.trace.time_s.at(-1) ?? 1)))
const x = computed(() => linear(0, end.value / 60, '', { count: 8 }))
const place = (minutes: number) => LEFT + (RIGHT - LEFT) * x.value.share(minutes)

/** Runs of time in which something passes unfiltered. */
function openRuns(trace: Schemas['WarmUpTraceOut']): { from: number; to: number; share: number }[] {
  return trace.time_s.flatMap((at, i) => {
    const share = trace.unfiltered_percent[i] ?? 0
    return share > 0 ? [{ from: place(at / 60), to: place((trace.time_s[i + 1] ?? at) / 60), share: share / 100 }] : []
  })
}
const strips = computed(() => props.starts.map((start, i) => ({ ...start, y: ROW * i, runs: openRuns(start.trace) })))

const minutes = (trace: Schemas['WarmUpTraceOut']) => trace.time_s.map((time) => time / 60)
const panels = computed(() => {
  const trace = hand.value?.trace
  if (!trace) return []
  const shown = (values: readonly number[]) => values.map((celsius) => inUnit(celsius, unit.value))
  const oil = [
    { key: 'sump', name: 'sump', xs: minutes(trace), ys: shown(trace.temperature_c), ink: 'var(--ink)', width: 1.6 },
    { key: 'can', name: 'can', xs: minutes(trace), ys: shown(trace.can_temperature_c), ink: 'var(--ink)', width: 1.6, dash: '5 3' },
  ]
  const all = oil.flatMap((line) => line.ys)
  const pressures = (key: 'gallery_kpa' | 'element_kpa') =>
    props.starts.map((start, i) => ({
      key: String(start.id),
      name: `${start.number}`,
      xs: minutes(start.trace),
      ys: start.trace[key].map((value) => (value === null ? null : value * kpa.value.factor)),
      ink: start.colour,
      dash: DASHES[i % DASHES.length],
      width: 1.5,
    }))
  const highest = (lines: readonly { ys: readonly (number | null)[] }[]) => linear(0, Math.max(1e-9, ...lines.flatMap((line) => line.ys.map((value) => value ?? 0))) * 1.05, '', { count: 4 })
  const [gallery, element] = [pressures('gallery_kpa'), pressures('element_kpa')]
  const bare = { ...x.value, ticks: [], name: 'min' }
  return [
    { name: 'oil', height: 74, x: bare, y: linear(Math.min(...all), Math.max(...all), '', { count: 3 }), lines: oil, heading: `oil, ${unit.value.symbol}: sump, dashed in the can` },
    { name: 'gallery', height: 98, x: bare, y: highest(gallery), lines: gallery, heading: `gallery, ${kpa.value.symbol}` },
    { name: 'element', height: 128, x: { ...x.value, name: 'min', title: 'minutes after the start · above: rust where oil passes unfiltered' }, y: highest(element), lines: element, heading: `element Δp, ${kpa.value.symbol}` },
  ]
})
const words = computed(
  () =>
    `Start over ${significant(end.value / 60, 2)} minutes. ${strips.value.map((strip) => `${strip.label}: ${strip.runs.length ? `oil unfiltered until ${significant(Math.max(...strip.trace.time_s.filter((_, i) => (strip.trace.unfiltered_percent[i] ?? 0) > 0)) / 60, 2)} min at the latest` : 'never unfiltered'}`).join('; ')}.`,
)
</script>

<template>
  <div data-figure="start">
    <svg class="chart" :viewBox="`0 -4 ${WIDTH} ${ROW * starts.length + 4}`" role="img" :aria-label="words">
      <g v-for="strip in strips" :key="strip.id">
        <text class="end" :x="LEFT - 4" :y="strip.y + 9">{{ strip.number }}</text>
        <rect class="way" :x="LEFT" :y="strip.y + 1" :width="RIGHT - LEFT" :height="ROW - 3" />
        <rect v-for="(run, i) in strip.runs" :key="i" class="open" :x="run.from" :y="strip.y + 1" :width="Math.max(0.8, run.to - run.from)" :height="ROW - 3" :opacity="0.25 + 0.75 * run.share" />
      </g>
    </svg>
    <LineChart v-for="panel in panels" :key="panel.name" v-model:at="at" :width="WIDTH" :margin="{ left: LEFT, right: WIDTH - RIGHT, ...(panel.x.title ? {} : { bottom: 4 }) }" v-bind="panel" :words="`${panel.heading} over ${significant(end / 60, 2)} minutes`" />
  </div>
</template>

<style scoped>
.way {
  fill: var(--amber-wash);
}
.open {
  fill: var(--rust);
}
</style>
