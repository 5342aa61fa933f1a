<script setup lang="ts">
/** The pressure profile from pump to gallery, one step a part, the gauge taps marked. */
import { computed } from 'vue'
import { zeroBasedScale } from '@/shared/scales'
import type { Step } from './lossBreakdown'
import { significant } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'
import { catalogue } from '@/catalogue/catalogue'
import ChartFrame from '@/shared/ChartFrame.vue'

const props = defineProps<{
  steps: readonly Step[]
  pump: number
  inlet: number
  gallery: number
  /** Null for the filter alone: there is no gauge, and the pressure is told above that behind it. */
  gauge: 'pump' | 'filter_inlet' | 'gallery' | null
  unchanged: { pump: number; inlet: number; gallery: number } | null
  family: UnitFamily
}>()

const [WIDTH, LEFT, RIGHT, TOP, BOTTOM] = [390, 40, 384, 14, 104]
const unit = computed(() => shownUnit('kpa', props.family))
const y = computed(() => zeroBasedScale(Math.max(props.pump, props.unchanged?.pump ?? 0) * unit.value.factor * 1.05, BOTTOM, TOP, 4))
const at = (kpa: number) => y.value.at(kpa * unit.value.factor)
const stride = computed(() => (RIGHT - LEFT - 8) / (props.steps.length + 1))
const x = (i: number) => LEFT + 4 + i * stride.value
const line = computed(() => {
  const path = props.steps.map((step, i) => `H${x(i + 1)}V${at(step.to)}`)
  return `M${x(0)} ${at(props.pump)}${path.join('')}H${x(props.steps.length + 1)}`
})
const inletAt = computed(() => {
  const first = props.steps.findIndex((step) => !catalogue().engine_side.includes(step.name))
  return x((first < 0 ? props.steps.length : first) + 0.5)
})
const taps = computed(() => {
  const gauged = { pump: [x(0.5), props.pump], filter_inlet: [inletAt.value, props.inlet], gallery: [x(props.steps.length + 0.5), props.gallery] } as const
  return gauged[props.gauge ?? 'filter_inlet']
})
const told = (kpa: number) => significant(kpa * unit.value.factor, 3)
const words = computed(
  () =>
    `Pressure from ${props.gauge ? 'pump' : 'inlet'} ${told(props.pump)} to ${props.gauge ? 'gallery' : 'outlet'} ${told(props.gallery)} ${unit.value.symbol}: ${props.steps.map((step) => `${step.title.toLowerCase()} ${told(step.from - step.to)}`).join(', ')}.`,
)

const clogging = computed(() => {
  const was = props.unchanged
  if (!was) return ''
  const move = (now: number, before: number) => {
    const change = (now - before) * unit.value.factor
    return Math.abs(change) < 0.05 ? 'stays' : `${change > 0 ? 'rises' : 'falls'} by ${significant(Math.abs(change), 2)}`
  }
  return `Against the unchanged filter a gauge before it ${move(props.inlet, was.inlet)}, one after it ${move(props.gallery, was.gallery)} ${unit.value.symbol}.`
})
</script>

<template>
  <section class="panel" aria-label="Pressure profile">
    <h2>Pressure profile</h2>
    <svg class="chart" :viewBox="`0 0 ${WIDTH} 122`" role="img" :aria-label="words" data-figure="pressure-profile">
      <ChartFrame :left="LEFT" :right="RIGHT" :top="TOP" :bottom="BOTTOM" :across="[]" :up="y.ticks.map((tick) => ({ at: y.at(tick), label: tick }))" />
      <path v-if="gauge" class="filter" :d="`M${inletAt - stride / 2} ${TOP}V${BOTTOM}H${x(steps.length)}V${TOP}Z`" />
      <path class="steps" :d="line" />
      <template v-if="unchanged">
        <path class="was" :d="`M${x(0)} ${at(unchanged.pump)}H${x(1)}`" />
        <path class="was" :d="`M${x(steps.length)} ${at(unchanged.gallery)}H${x(steps.length + 1)}`" />
      </template>
      <text class="start" :x="x(0) + 2" y="116">{{ gauge ? 'pump' : 'inlet' }}</text>
      <text v-if="gauge" class="middle" :x="(inletAt - stride / 2 + x(steps.length)) / 2" y="116">filter</text>
      <text class="end" :x="RIGHT" y="116">{{ gauge ? 'gallery' : 'outlet' }}</text>
      <g v-if="gauge" class="tap">
        <path :d="`M${taps[0]} ${at(taps[1])}V${at(taps[1]) - 9}`" />
        <circle :cx="taps[0]" :cy="at(taps[1]) - 12" r="4" />
      </g>
    </svg>
    <table v-if="gauge" class="taps">
      <thead>
        <tr>
          <th>a gauge shows</th>
          <th class="number">before filter</th>
          <th class="number">after filter</th>
          <th class="number">engine gets</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <td>{{ unit.symbol }}</td>
          <td class="number" :class="{ here: gauge === 'filter_inlet' }" data-gauge="before">{{ told(inlet) }}</td>
          <td class="number" :class="{ here: gauge === 'gallery' }" data-gauge="after">{{ told(gallery) }}</td>
          <td class="number" data-gauge="engine">{{ told(gallery) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="!gauge" class="fine">The pressure along the way through the filter, above that behind it.</p>
    <p v-else class="fine">
      {{ clogging || 'A gauge before the filter rises when it clogs; only one after it shows what the engine gets.' }}
      <template v-if="gauge === 'pump'"> This engine's gauge taps the pump outlet: {{ told(pump) }} {{ unit.symbol }}.</template>
    </p>
  </section>
</template>

<style scoped>
.steps {
  fill: none;
  stroke: var(--amber);
  stroke-width: 2.4;
}
.filter {
  fill: var(--amber-wash);
  opacity: 0.4;
}
.was {
  stroke: var(--hand);
  stroke-width: 1.6;
  stroke-dasharray: 4 3;
}
.tap path {
  stroke: var(--ink);
}
.tap circle {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.here {
  text-decoration: underline;
}
</style>
