<script setup lang="ts">
/** A quantity over oil temperature × engine speed or filter flow, with regions, curves and a crosshair. */
import { scaleLinear } from 'd3-scale'
import { computed, reactive, ref, useTemplateRef, watchEffect } from 'vue'
import { levelLines, openRegion, thresholdPath, type ThresholdLine } from './mapLines'
import { catalogue } from '@/catalogue/catalogue'
import { fieldScale, paintField, type Grid } from './mapField'
import { useElementSize } from '@vueuse/core'
import { plainNumber, significant } from '@/shared/numbers'
import type { ShownUnit } from '@/catalogue/units'

export interface Crosshair {
  row: number
  column: number
}

export interface MapField {
  grid: Grid
  temperatures: readonly number[]
  temperatureUnit: ShownUnit
  across: readonly number[]
  acrossTitle: string
  unit: ShownUnit
  isLog: boolean
  coldestPumping: number
  onset: ThresholdLine
  /** Where the regulator opens; none for the filter alone. */
  regulator: ThresholdLine | null
  /** The onset of the unchanged filter, beside that of a scenario. */
  unchanged: ThresholdLine | null
}

const props = defineProps<{ field: MapField; crosshair: Crosshair; summary: string; inputWords: string }>()
const emit = defineEmits<{ move: [crosshair: Crosshair]; inputs: [] }>()

const MARGIN = { left: 58, right: 26, top: 12, bottom: 46 }
const LONG_STEP = 4

const frame = useTemplateRef<HTMLElement>('frame')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const picture = useTemplateRef<SVGSVGElement>('picture')
const size = reactive(useElementSize(frame))
const width = computed(() => Math.max(80, Math.floor(size.width) - MARGIN.left - MARGIN.right))
const height = computed(() => Math.max(80, Math.floor(size.height) - MARGIN.top - MARGIN.bottom))
const dragging = ref(false)
defineExpose({ parts: () => ({ svg: picture.value, canvas: canvas.value, left: MARGIN.left, top: MARGIN.top }) })

const temperatures = computed(() => props.field.temperatures)
const across = computed(() => props.field.across)
const coldest = computed(() => temperatures.value[0]!)
const hottest = computed(() => temperatures.value[temperatures.value.length - 1]!)
const shown = computed(() =>
  props.field.grid.map((row) => row.map((value) => (value === null ? null : value * props.field.unit.factor))),
)
const scale = computed(() => fieldScale(shown.value, props.field.isLog))
const scales = computed(() => ({
  x: scaleLinear([across.value[0]!, across.value[across.value.length - 1]!], [0, width.value]),
  y: scaleLinear([coldest.value, hottest.value], [height.value, 0]),
}))
const levels = computed(() => levelLines(shown.value, temperatures.value, across.value, scale.value, scales.value))
const onset = computed(() => thresholdPath(props.field.onset, scales.value))
const unchanged = computed(() => (props.field.unchanged ? thresholdPath(props.field.unchanged, scales.value) : ''))
const regulator = computed(() => (props.field.regulator ? thresholdPath(props.field.regulator, scales.value) : ''))
const region = computed(() => openRegion(props.field.onset, props.field.coldestPumping, hottest.value, scales.value))
const coldHeight = computed(() => height.value - scales.value.y(Math.max(coldest.value, props.field.coldestPumping)))
const at = computed(() => ({
  x: scales.value.x(across.value[props.crosshair.column]!),
  y: scales.value.y(temperatures.value[props.crosshair.row]!),
}))

watchEffect(
  () => {
    const paper = canvas.value?.getContext('2d')
    if (!canvas.value || !paper || !size.width) return
    canvas.value.width = width.value
    canvas.value.height = height.value
    const pixels = paintField(shown.value, temperatures.value, across.value, scale.value, width.value, height.value)
    paper.putImageData(new ImageData(pixels, width.value, height.value), 0, 0)
  },
  { flush: 'post' },
)

function nearest(axis: readonly number[], value: number): number {
  const step = (axis[axis.length - 1]! - axis[0]!) / (axis.length - 1)
  return Math.min(axis.length - 1, Math.max(0, Math.round((value - axis[0]!) / step)))
}

function point(event: PointerEvent) {
  const box = frame.value!.getBoundingClientRect()
  emit('move', {
    row: nearest(temperatures.value, scales.value.y.invert(event.clientY - box.top - MARGIN.top)),
    column: nearest(across.value, scales.value.x.invert(event.clientX - box.left - MARGIN.left)),
  })
}

function press(event: PointerEvent) {
  dragging.value = true
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  point(event)
}

const STEPS: Record<string, [number, number]> = {
  ArrowUp: [1, 0],
  ArrowDown: [-1, 0],
  ArrowRight: [0, 1],
  ArrowLeft: [0, -1],
}

function onKey(event: KeyboardEvent) {
  const step = STEPS[event.key]
  if (!step || event.ctrlKey) return
  event.preventDefault()
  const by = event.shiftKey ? LONG_STEP : 1
  const clamp = (value: number, length: number) => Math.min(length - 1, Math.max(0, value))
  emit('move', {
    row: clamp(props.crosshair.row + step[0] * by, temperatures.value.length),
    column: clamp(props.crosshair.column + step[1] * by, across.value.length),
  })
}
</script>

<template>
  <figure class="map stack">
    <div
      ref="frame"
      class="frame fills"
      tabindex="0"
      role="application"
      aria-label="Operating map; arrow keys move the crosshair, with Shift by four steps"
      aria-describedby="map-summary"
      @keydown="onKey"
      @pointerdown="press"
      @pointermove="dragging && point($event)"
      @pointerup="dragging = false"
      @pointercancel="dragging = false"
    >
      <canvas ref="canvas" :style="{ left: `${MARGIN.left}px`, top: `${MARGIN.top}px` }" aria-hidden="true" />
      <svg v-if="size.width" ref="picture" :width="size.width" :height="size.height" aria-hidden="true">
        <defs>
          <pattern id="open-hatch" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V8" class="hatch" />
          </pattern>
          <pattern id="cold-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
            <path d="M0 0V5" class="cold" />
          </pattern>
          <clipPath id="pumping"><rect :width="width" :height="height - coldHeight" /></clipPath>
        </defs>
        <g :transform="`translate(${MARGIN.left} ${MARGIN.top})`">
          <g clip-path="url(#pumping)">
            <path
              v-for="level in levels"
              :key="level.level"
              class="level"
              :class="{ pale: (scale.share(level.level) ?? 0) > 0.55 }"
              :d="level.path"
            />
            <path class="region-wash" :d="region" />
            <path class="region" :d="region" fill="url(#open-hatch)" data-region="bypass" />
            <path v-if="regulator" class="regulator-back" :d="regulator" />
            <path v-if="regulator" class="regulator" :d="regulator" data-curve="regulator" />
            <path v-if="unchanged" class="onset-back" :d="unchanged" />
            <path v-if="unchanged" class="onset unchanged" :d="unchanged" data-curve="unchanged" />
            <path class="onset-back" :d="onset" />
            <path class="onset" :d="onset" data-curve="onset" />
            <g v-for="level in levels" :key="`label-${level.level}`">
              <text v-if="level.label" class="level-label" :x="level.label.x" :y="level.label.y + 4">
                {{ significant(level.level, 3).replace(/\.0+$/, '') }}
              </text>
            </g>
          </g>
          <g v-if="coldHeight > 0">
            <rect :y="height - coldHeight" :width="width" :height="coldHeight" class="cold-ground" />
            <rect :y="height - coldHeight" :width="width" :height="coldHeight" fill="url(#cold-hatch)" />
          </g>
          <rect class="border" :width="width" :height="height" />
          <g v-for="tick in scales.y.ticks(9)" :key="`y${tick}`" :transform="`translate(0 ${scales.y(tick)})`">
            <path class="tick" d="M-5 0H0" />
            <text class="axis-label end" x="-9" y="4">{{ plainNumber(tick, 6) }}</text>
          </g>
          <g v-for="tick in scales.x.ticks(7)" :key="`x${tick}`" :transform="`translate(${scales.x(tick)} ${height})`">
            <path class="tick" d="M0 0V5" />
            <text class="axis-label mid" y="19">{{ tick }}</text>
          </g>
          <text class="axis-title mid" :x="width / 2" :y="height + 39">{{ field.acrossTitle }}</text>
          <text class="axis-title mid" :transform="`translate(-44 ${height / 2}) rotate(-90)`">oil temperature, {{ field.temperatureUnit.symbol }}</text>
          <g class="crosshair">
            <path class="halo" :d="`M0 ${at.y}H${width}M${at.x} 0V${height}`" />
            <path :d="`M0 ${at.y}H${width}M${at.x} 0V${height}`" />
            <circle :cx="at.x" :cy="at.y" r="6" />
          </g>
        </g>
      </svg>
    </div>
    <figcaption class="wrap small">
      <span class="legend">
        <span class="soft">{{ significant(scale.low, 2) }}</span>
        <span
          class="ramp"
          :style="{
            background: `linear-gradient(90deg, ${catalogue().field_colours.map(({ share, colour }) => `${colour} ${share * 100}%`).join(', ')})`,
          }"
        />
        <span class="soft">{{ significant(scale.high, 3) }} {{ field.unit.symbol }}{{ scale.isLog ? ', log' : '' }}</span>
      </span>
      <span class="legend">
        <svg width="26" height="14" aria-hidden="true">
          <rect width="26" height="14" class="swatch-ground" />
          <rect width="26" height="14" fill="url(#open-hatch)" class="swatch" />
        </svg>
        bypass open
      </span>
      <span class="legend">
        <svg width="26" height="14" aria-hidden="true"><path class="onset" d="M0 7H26" /></svg>
        onset
      </span>
      <span v-if="unchanged" class="legend">
        <svg width="26" height="14" aria-hidden="true"><path class="onset unchanged" d="M0 7H26" /></svg>
        unchanged
      </span>
      <span v-if="regulator" class="legend">
        <svg width="26" height="14" aria-hidden="true"><path class="regulator-back" d="M0 7H26" /><path class="regulator" d="M0 7H26" /></svg>
        regulator opens
      </span>
      <span v-if="field.coldestPumping > coldest" class="legend">
        <svg width="26" height="14" aria-hidden="true">
          <rect width="26" height="14" class="cold-ground" />
          <rect width="26" height="14" fill="url(#cold-hatch)" />
        </svg>
        below the pumpability limit
      </span>
      <button type="button" class="inputs bare small" data-map="inputs" title="Inputs and sensitivity" @click="emit('inputs')">inputs: {{ inputWords }}</button>
      <span class="caution soft fine">
        A model, not a test. An open bypass is an emergency path: the vehicle maker's instructions and qualified mechanics
        decide.
      </span>
    </figcaption>
    <p id="map-summary" class="unseen">{{ summary }}</p>
  </figure>
</template>

<style scoped>
.inputs {
  text-decoration: underline dotted;
}
.map {
  min-height: 0;
  min-width: 0;
}
.frame {
  position: relative;
  overflow: hidden;
  cursor: crosshair;
  touch-action: none;
}
canvas {
  position: absolute;
}
svg {
  position: relative;
  display: block;
}
.hatch {
  stroke: #fbe3d6;
  stroke-width: 2;
}
.cold {
  stroke: var(--slate);
  stroke-width: 1;
}
.cold-ground {
  fill: var(--slate-wash);
}
.level {
  fill: none;
  stroke: #211d17;
  stroke-opacity: 0.4;
  stroke-width: 1;
}
.level-label {
  font-family: var(--head);
  font-size: 11.5px;
  fill: #211d17;
  text-anchor: middle;
  paint-order: stroke;
  stroke: #f9efd6;
  stroke-opacity: 0.85;
  stroke-width: 4px;
}
.level.pale {
  stroke: #fdfaf4;
  stroke-opacity: 0.55;
}
.region {
  stroke: none;
}
.region-wash {
  fill: #b0401a;
  fill-opacity: 0.42;
}
.onset-back {
  fill: none;
  stroke: #fdfaf4;
  stroke-width: 6.5;
}
.onset {
  fill: none;
  stroke: #8a3417;
  stroke-width: 3.5;
}
.onset.unchanged {
  stroke-dasharray: 7 5;
  stroke-width: 2.5;
}
.regulator-back {
  fill: none;
  stroke: #fdfaf4;
  stroke-width: 4.5;
}
.regulator {
  fill: none;
  stroke: #33414d;
  stroke-width: 2;
  stroke-dasharray: 10 4 2 4;
}
.border {
  fill: none;
  stroke: var(--ink);
}
.tick {
  stroke: var(--ink);
}
.axis-label,
.axis-title {
  font-family: var(--head);
  font-size: 12.5px;
  fill: var(--ink);
}
.axis-title {
  font-size: 13px;
}
.mid {
  text-anchor: middle;
}
.end {
  text-anchor: end;
}
.crosshair path {
  stroke: #0c666d;
  stroke-width: 1.5;
}
.crosshair .halo {
  stroke: #fdfaf4;
  stroke-opacity: 0.75;
  stroke-width: 4;
}
.crosshair circle {
  fill: none;
  stroke: #0c666d;
  stroke-width: 2.5;
  paint-order: stroke;
}
figcaption {
  gap: 0.15rem 0.75rem;
  padding: 0.2rem 0 0.1rem 58px;
}
.legend {
  display: inline-flex;
  align-items: center;
  gap: 0.45rem;
}
.ramp {
  width: 84px;
  height: 12px;
  border: 1px solid var(--line-strong);
}
.swatch-ground {
  fill: #8a3417;
}
</style>
