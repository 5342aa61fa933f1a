<script setup lang="ts">
/** A start over time: pressures and temperatures of the selected sample, and where each filter's bypass is open. */
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { DASHES } from '@/shared/bandChart'
import { linePath, zeroBasedScale } from '@/shared/scales'
import { plainNumber, significant } from '@/shared/numbers'
import { inUnit, shownUnit, type UnitFamily } from '@/catalogue/units'
import ChartFrame from '@/shared/ChartFrame.vue'

export interface ShownStart {
  id: number
  label: string
  number: number
  colour: string
  trace: Schemas['WarmUpTraceOut']
}

const props = defineProps<{ starts: readonly ShownStart[]; inHand: number; family: UnitFamily }>()

const [WIDTH, LEFT, RIGHT] = [640, 46, 628]
const OPEN = { top: 8, row: 13 }
const openBottom = computed(() => OPEN.top + OPEN.row * props.starts.length)
const panels = computed(() => {
  const top = openBottom.value + 14
  return { temperature: { top, bottom: top + 62 }, gallery: { top: top + 74, bottom: top + 160 }, element: { top: top + 172, bottom: top + 262 } }
})
const height = computed(() => panels.value.element.bottom + 28)
const kpa = computed(() => shownUnit('kpa', props.family))
const unit = computed(() => shownUnit('c', props.family))
const hand = computed(() => props.starts.find((start) => start.id === props.inHand) ?? props.starts[0])
const end = computed(() => Math.max(1, ...props.starts.map((start) => start.trace.time_s.at(-1) ?? 1)))
const x = computed(() => zeroBasedScale(end.value / 60, LEFT, RIGHT, 8))
const across = computed(() => x.value.ticks.map((tick) => ({ at: x.value.at(tick), label: tick })))

/** Runs of time in which something passes unfiltered. */
function openRuns(trace: Schemas['WarmUpTraceOut']): { from: number; to: number; share: number }[] {
  return trace.time_s.flatMap((at, i) => {
    const share = trace.unfiltered_percent[i] ?? 0
    return share > 0 ? [{ from: x.value.at(at / 60), to: x.value.at((trace.time_s[i + 1] ?? at) / 60), share: share / 100 }] : []
  })
}
const strips = computed(() => props.starts.map((start, i) => ({ ...start, y: OPEN.top + OPEN.row * i, runs: openRuns(start.trace) })))

const temperatures = computed(() => {
  const trace = hand.value?.trace
  if (!trace) return null
  const [sump, can] = [trace.temperature_c, trace.can_temperature_c].map((values) => values.map((celsius) => inUnit(celsius, unit.value))) as [number[], number[]]
  const all = [...sump, ...can]
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const { top, bottom } = panels.value.temperature
  const at = scaleLinear([low, Math.max(low + 1, high)], [bottom, top])
  const xs = trace.time_s.map((time) => x.value.at(time / 60))
  return {
    up: at.ticks(3).map((tick) => ({ at: at(tick), label: plainNumber(tick, 6) })),
    sump: linePath(xs, sump.map((shown) => at(shown))),
    can: linePath(xs, can.map((shown) => at(shown))),
  }
})

function pressures(key: 'gallery_kpa' | 'element_kpa', { top, bottom }: { top: number; bottom: number }) {
  const highest = Math.max(1e-9, ...props.starts.flatMap((start) => start.trace[key].map((value) => value ?? 0))) * kpa.value.factor
  const y = zeroBasedScale(highest * 1.05, bottom, top, 4)
  return {
    up: y.ticks.map((tick) => ({ at: y.at(tick), label: tick })),
    lines: props.starts.map((start, i) => ({
      id: start.id,
      colour: start.colour,
      dash: DASHES[i % DASHES.length],
      d: linePath(
        start.trace.time_s.map((time) => x.value.at(time / 60)),
        start.trace[key].map((value) => y.at((value ?? 0) * kpa.value.factor)),
      ),
    })),
  }
}
const gallery = computed(() => pressures('gallery_kpa', panels.value.gallery))
const element = computed(() => pressures('element_kpa', panels.value.element))
const words = computed(
  () =>
    `Start over ${significant(end.value / 60, 2)} minutes. ${strips.value.map((strip) => `${strip.label}: ${strip.runs.length ? `oil unfiltered until ${significant(Math.max(...strip.trace.time_s.filter((_, i) => (strip.trace.unfiltered_percent[i] ?? 0) > 0)) / 60, 2)} min at the latest` : 'never unfiltered'}`).join('; ')}.`,
)
</script>

<template>
  <svg class="chart start" :viewBox="`0 0 ${WIDTH} ${height}`" role="img" :aria-label="words" data-figure="start">
    <g v-for="strip in strips" :key="strip.id">
      <text class="end" :x="LEFT - 4" :y="strip.y + 9">{{ strip.number }}</text>
      <rect class="way" :x="LEFT" :y="strip.y + 1" :width="RIGHT - LEFT" :height="OPEN.row - 3" />
      <rect
        v-for="(run, i) in strip.runs"
        :key="i"
        class="open"
        :x="run.from"
        :y="strip.y + 1"
        :width="Math.max(0.8, run.to - run.from)"
        :height="OPEN.row - 3"
        :opacity="0.25 + 0.75 * run.share"
      />
    </g>
    <template v-if="temperatures">
      <ChartFrame :left="LEFT" :right="RIGHT" :top="panels.temperature.top" :bottom="panels.temperature.bottom" :across="[]" :up="temperatures.up" />
      <path class="sump" :d="temperatures.sump" />
      <path class="can" :d="temperatures.can" />
      <text :x="LEFT + 6" :y="panels.temperature.top + 8">oil, {{ unit.symbol }}: sump, dashed in the can</text>
    </template>
    <ChartFrame :left="LEFT" :right="RIGHT" :top="panels.gallery.top" :bottom="panels.gallery.bottom" :across="[]" :up="gallery.up" />
    <path v-for="line in gallery.lines" :key="line.id" class="line" :d="line.d" :stroke="line.colour" :stroke-dasharray="line.dash" />
    <text :x="LEFT + 6" :y="panels.gallery.top + 8">gallery, {{ kpa.symbol }}</text>
    <ChartFrame :left="LEFT" :right="RIGHT" :top="panels.element.top" :bottom="panels.element.bottom" :across="across" :up="element.up" />
    <path v-for="line in element.lines" :key="line.id" class="line" :d="line.d" :stroke="line.colour" :stroke-dasharray="line.dash" />
    <text :x="LEFT + 6" :y="panels.element.top + 8">element Δp, {{ kpa.symbol }}</text>
    <text class="middle" :x="(LEFT + RIGHT) / 2" :y="height - 3">minutes after the start · above: rust where oil passes unfiltered</text>
  </svg>
</template>

<style scoped>
.way {
  fill: var(--amber-wash);
}
.open {
  fill: var(--rust);
}
.sump,
.can {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.can {
  stroke-dasharray: 5 3;
}
.line {
  fill: none;
  stroke-width: 1.5;
}
</style>
