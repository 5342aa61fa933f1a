<script setup lang="ts">
/** Lift and flow of the bypass valve against the pressure across it, oil cold and hot. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/shared/ChartFrame.vue'
import { linePath, zeroBasedScale } from '@/shared/scales'
import { spreadLabels } from '@/shared/labels'
import { significant } from '@/shared/numbers'
import { degrees } from '@/shared/degrees'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{ valve: Schemas['ValveOut']; family: UnitFamily }>()

const [WIDTH, LEFT, RIGHT] = [350, 38, 346]
const PANELS = { lift: { top: 8, bottom: 70 }, flow: { top: 84, bottom: 158 } }

const pressure = computed(() => shownUnit('kpa', props.family))
const length = computed(() => shownUnit('mm', props.family))
const flow = computed(() => shownUnit('l_min', props.family))
const curves = computed(() => props.valve.curves)
const x = computed(() => zeroBasedScale(Math.max(...curves.value.flatMap((curve) => curve.pressure_kpa)) * pressure.value.factor, LEFT, RIGHT, 6))
const panels = computed(() =>
  ([
    ['lift', 'lift_mm', length.value],
    ['flow', 'flow_rate_l_min', flow.value],
  ] as const).map(([name, key, unit]) => {
    const { top, bottom } = PANELS[name]
    const high = Math.max(...curves.value.flatMap((curve) => curve[key])) * unit.factor
    const y = zeroBasedScale(high * 1.08, bottom, top, 3)
    return {
      name,
      top,
      bottom,
      across: name === 'flow' ? x.value.ticks.map((tick) => ({ at: x.value.at(tick), label: tick })) : [],
      up: y.ticks.map((tick) => ({ at: y.at(tick), label: tick })),
      symbol: unit.symbol,
      lines: curves.value.map((curve) => ({
        temperature: curve.temperature_c,
        path: linePath(
          curve.pressure_kpa.map((kpa) => x.value.at(kpa * pressure.value.factor)),
          curve[key].map((value) => y.at(value * unit.factor)),
        ),
      })),
    }
  }),
)
const marks = computed(() =>
  (
    [
      ['opens', props.valve.opening_kpa],
      ['full open', props.valve.full_open_kpa],
      ['closes', props.valve.comparison.closing_kpa?.value ?? null],
    ] as const
  ).flatMap(([name, kpa]) => (kpa === null ? [] : [{ name, at: x.value.at(kpa * pressure.value.factor) }])),
)
const labels = computed(() => spreadLabels(marks.value, LEFT, RIGHT))
const band = computed(() => {
  const stated = props.valve.comparison.stated_band
  if (!stated) return null
  const [low, high] = [stated.low_kpa, stated.high_kpa].map((kpa) => Math.min(RIGHT, x.value.at(kpa * pressure.value.factor)))
  return { x: low!, width: Math.max(0, high! - low!) }
})
const description = computed(() => {
  const last = (key: 'lift_mm' | 'flow_rate_l_min') => curves.value.map((curve) => `${significant(curve[key].at(-1)! * (key === 'flow_rate_l_min' ? flow.value.factor : length.value.factor), 3)} at ${degrees(curve.temperature_c, props.family)}`)
  return `Lift and flow against pressure. At the end of the curve lift ${last('lift_mm').join(', ')} ${length.value.symbol}; flow ${last('flow_rate_l_min').join(', ')} ${flow.value.symbol}.`
})
</script>

<template>
  <svg class="chart" :viewBox="`0 0 ${WIDTH} 190`" role="img" :aria-label="description">
    <rect v-if="band" class="band" :x="band.x" :y="PANELS.lift.top" :width="band.width" :height="PANELS.flow.bottom - PANELS.lift.top">
      <title>stated band</title>
    </rect>
    <g v-for="panel in panels" :key="panel.name">
      <ChartFrame :left="LEFT" :right="RIGHT" :top="panel.top" :bottom="panel.bottom" :across="panel.across" :up="panel.up" />
      <path v-for="(line, i) in panel.lines" :key="line.temperature" class="line" :class="{ cold: i === 0 }" :d="line.path" />
      <text :x="LEFT + 5" :y="panel.top + 9">{{ panel.name }}, {{ panel.symbol }}</text>
    </g>
    <g v-for="(mark, i) in marks" :key="mark.name">
      <path class="mark" :d="`M${mark.at} ${PANELS.lift.top}V${PANELS.flow.bottom}`" />
      <text class="middle" :x="labels[i]" :y="80">{{ mark.name }}</text>
    </g>
    <text class="middle" :x="(LEFT + RIGHT) / 2" y="185">
      pressure across the valve, {{ pressure.symbol }} · solid {{ degrees(curves.at(-1)?.temperature_c ?? 0, family) }}, dashed {{ degrees(curves[0]?.temperature_c ?? 0, family) }}
    </text>
  </svg>
</template>

<style scoped>
.line {
  fill: none;
  stroke: var(--rust);
  stroke-width: 1.8;
}
.line.cold {
  stroke-dasharray: 5 3;
}
.mark {
  stroke: var(--hand);
  stroke-dasharray: 2 2;
}
.band {
  fill: var(--amber-wash);
  opacity: 0.7;
}
</style>
