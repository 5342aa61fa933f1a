<script setup lang="ts">
/** The viscosity line on its D341 axes; points are dragged, and any temperature is read off. */
import { computed, ref, useTemplateRef } from 'vue'
import { oilScale, VISCOSITY_TICKS } from './oilScale'
import { fromUnit, inUnit, shownUnit, type UnitFamily } from '@/catalogue/units'
import { degrees } from '@/shared/degrees'
import { linePath, roundLevels } from '@/shared/scales'
import type { OilLine } from './useEngine'
import { plainNumber, significant } from '@/shared/numbers'
import ChartFrame from '@/shared/ChartFrame.vue'

const props = defineProps<{ line: OilLine; reading: number; family: UnitFamily }>()
const emit = defineEmits<{
  read: [celsius: number]
  /** A point is being dragged: its place in the list, and where it would be. */
  drag: [index: number, celsius: number, kinematic: number]
  drop: []
}>()

const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [520, 300, 46, 512, 8, 272]
const SPAN = [-45, 150] as const
const THINNEST = 2.5
const THICKEST = 60000
const svg = useTemplateRef<SVGSVGElement>('svg')
const held = ref<number | null>(null)

const scale = oilScale(SPAN, [THINNEST, THICKEST], [LEFT, RIGHT, TOP, BOTTOM])
const unit = computed(() => shownUnit('c', props.family))
const across = computed(() => {
  const [low, high] = SPAN.map((celsius) => inUnit(celsius, unit.value)) as [number, number]
  return roundLevels(low, high - 4, 10).map((shown) => ({ at: scale.x(fromUnit(shown, unit.value)), label: plainNumber(shown, 6) }))
})
const up = VISCOSITY_TICKS.filter((tick) => tick >= THINNEST && tick <= THICKEST).map((tick) => ({ at: scale.y(tick), label: tick }))

function part(from: number, to: number): string {
  const inside = props.line.temperature_c
    .map((celsius, i) => ({ celsius, kinematic: props.line.kinematic_mm2_s[i]! }))
    .filter((item) => item.celsius >= from && item.celsius <= to && item.kinematic < THICKEST && item.kinematic > THINNEST)
  return linePath(
    inside.map((item) => scale.x(item.celsius)),
    inside.map((item) => scale.y(item.kinematic)),
  )
}
const known = computed(() => part(Math.max(SPAN[0], props.line.coldest_point_c), Math.min(SPAN[1], props.line.warmest_point_c)))
const extended = computed(() => [part(SPAN[0], props.line.coldest_point_c), part(props.line.warmest_point_c, SPAN[1])])
const points = computed(() =>
  props.line.points.map((point, index) => ({
    index,
    ...point,
    x: scale.x(point.temperature_c),
    y: scale.y(Math.min(THICKEST, Math.max(THINNEST, point.kinematic_mm2_s))),
  })),
)
const cold = computed(() => (props.line.coldest_pumping_c > SPAN[0] ? scale.x(Math.min(SPAN[1], props.line.coldest_pumping_c)) : null))
const row = computed(() => {
  const at = props.line.temperature_c.findIndex((celsius) => celsius >= props.reading)
  return at < 0 ? props.line.temperature_c.length - 1 : at
})
const mark = computed(() => ({
  x: scale.x(props.line.temperature_c[row.value]!),
  y: scale.y(Math.min(THICKEST, Math.max(THINNEST, props.line.kinematic_mm2_s[row.value]!))),
}))
const shown = (celsius: number) => degrees(celsius, props.family)
const words = computed(
  () =>
    `Kinematic viscosity over temperature: ${props.line.points.map((point) => `${significant(point.kinematic_mm2_s, 3)} mm²/s at ${shown(point.temperature_c)}`).join(', ')}; extended below ${shown(props.line.coldest_point_c)} and above ${shown(props.line.warmest_point_c)}.`,
)

function place(event: PointerEvent): { x: number; y: number } {
  const box = svg.value!.getBoundingClientRect()
  return { x: ((event.clientX - box.left) / box.width) * WIDTH, y: ((event.clientY - box.top) / box.height) * HEIGHT }
}

function press(event: PointerEvent, index: number | null) {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  held.value = index
  if (index === null) move(event)
}

function move(event: PointerEvent) {
  if (!(event.buttons & 1)) return
  const { x, y } = place(event)
  const celsius = Math.min(SPAN[1], Math.max(SPAN[0], scale.celsiusAt(Math.min(RIGHT, Math.max(LEFT, x)))))
  if (held.value === null) emit('read', Math.round(celsius * 2) / 2)
  else emit('drag', held.value, Math.round(celsius), Number(scale.kinematicAt(Math.min(BOTTOM, Math.max(TOP, y))).toPrecision(3)))
}

function release() {
  if (held.value !== null) emit('drop')
  held.value = null
}
</script>

<template>
  <svg ref="svg" class="chart" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="words" data-figure="oil">
    <rect class="ground" :x="LEFT" :y="TOP" :width="RIGHT - LEFT" :height="BOTTOM - TOP" @pointerdown="press($event, null)" @pointermove="move" @pointerup="release" />
    <ChartFrame :left="LEFT" :right="RIGHT" :top="TOP" :bottom="BOTTOM" :across="across" :up="up" />
    <g v-if="cold !== null" class="still">
      <rect class="cold" :x="LEFT" :y="TOP" :width="Math.max(0, cold - LEFT)" :height="BOTTOM - TOP" />
      <text :transform="`translate(${Math.max(LEFT + 10, cold - 4)} ${BOTTOM - 6}) rotate(-90)`">below the pumpability limit</text>
    </g>
    <path v-for="(d, i) in extended" :key="i" class="line extended" :d="d" />
    <path class="line" :d="known" />
    <path class="read" :d="`M${mark.x} ${BOTTOM}V${mark.y}H${LEFT}`" />
    <circle class="read" :cx="mark.x" :cy="mark.y" r="3.5" />
    <g v-for="point in points" :key="point.index" class="point" :data-point="point.index">
      <circle :class="{ sheared: point.high_shear }" :cx="point.x" :cy="point.y" r="6.5" @pointerdown="press($event, point.index)" @pointermove="move" @pointerup="release" />
    </g>
    <text class="middle" :x="(LEFT + RIGHT) / 2" :y="HEIGHT - 4">{{ unit.symbol }} · kinematic, mm²/s · dashed: beyond the points · ◌ high shear</text>
  </svg>
</template>

<style scoped>
.chart {
  touch-action: none;
}
.chart :deep(text) {
  font-size: 12.3px; /* drawn at nine tenths */
}
.ground {
  fill: transparent;
  cursor: crosshair;
}
.line {
  fill: none;
  stroke: var(--amber);
  stroke-width: 2.4;
  pointer-events: none;
}
.extended {
  stroke-dasharray: 6 4;
  stroke-width: 1.8;
}
.cold {
  fill: var(--slate-wash);
  opacity: 0.8;
}
.still {
  pointer-events: none;
}
.read {
  fill: none;
  stroke: var(--hand);
  stroke-width: 1.2;
  pointer-events: none;
}
circle.read {
  fill: var(--hand);
}
.point circle {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 2;
  cursor: grab;
}
.point .sheared {
  stroke-dasharray: 3 2.2;
}
</style>
