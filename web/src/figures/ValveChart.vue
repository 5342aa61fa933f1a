<script setup lang="ts">
/** Lift and flow of the bypass valve against the pressure across it, oil cold and hot. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import LineChart from '@/shared/LineChart.vue'
import { linear } from '@/shared/charts'
import { significant } from '@/shared/numbers'
import { degrees } from '@/shared/degrees'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{ valve: Schemas['ValveOut']; family: UnitFamily }>()

const at = ref<number | null>(null)
const pressure = computed(() => shownUnit('kpa', props.family))
const curves = computed(() => props.valve.curves)
const most = computed(() => Math.max(...curves.value.flatMap((curve) => curve.pressure_kpa)) * pressure.value.factor)
const marks = computed(() =>
  ([
    ['opens', props.valve.opening_kpa],
    ['full open', props.valve.full_open_kpa],
    ['closes', props.valve.comparison.closing_kpa?.value ?? null],
  ] as const).flatMap(([words, kpa]) => (kpa === null ? [] : [{ words, x: kpa * pressure.value.factor }])),
)
const span = computed(() => {
  const stated = props.valve.comparison.stated_band
  return stated && { from: stated.low_kpa * pressure.value.factor, to: Math.min(most.value, stated.high_kpa * pressure.value.factor), words: 'stated band' }
})
const panels = computed(() =>
  ([
    ['lift', 'lift_mm', shownUnit('mm', props.family)],
    ['flow', 'flow_rate_l_min', shownUnit('l_min', props.family)],
  ] as const).map(([name, key, unit]) => {
    const lines = curves.value.map((curve, i) => ({
      key: String(curve.temperature_c),
      name: degrees(curve.temperature_c, props.family),
      xs: curve.pressure_kpa.map((kpa) => kpa * pressure.value.factor),
      ys: curve[key].map((value) => value * unit.factor),
      ink: 'var(--rust)',
      dash: i ? '' : '5 3',
    }))
    const isFlow = name === 'flow'
    const title = `pressure across the valve, ${pressure.value.symbol} · dashed ${lines[0]?.name}`
    return {
      name,
      lines,
      isFlow,
      heading: `${name}, ${unit.symbol}`,
      x: { ...linear(0, most.value, isFlow ? title : '', { count: 6, ...(isFlow ? {} : { ticks: [] }) }), name: pressure.value.symbol },
      y: linear(0, Math.max(...lines.flatMap((line) => line.ys)) * 1.08, '', { count: 3 }),
      words: `${name} against pressure, at the end ${lines.map((line) => `${significant(line.ys.at(-1)!, 3)} ${unit.symbol} at ${line.name}`).join(', ')}.`,
    }
  }),
)
</script>

<template>
  <div>
    <LineChart v-for="panel in panels" :key="panel.name" v-model:at="at" :height="panel.isFlow ? 112 : 86" :x="panel.x" :y="panel.y" :lines="panel.lines" :marks="panel.isFlow ? marks.map(({ x }) => ({ x })) : marks" :span="span" :heading="panel.heading" :words="panel.words" />
  </div>
</template>
