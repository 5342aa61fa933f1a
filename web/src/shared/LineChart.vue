<script setup lang="ts">
/** A chart of lines: axes, bands, points with intervals, marks, and a crosshair by pointer and keys that reads every named line. */
import { area, line as lineThrough } from 'd3-shape'
import { computed, useTemplateRef } from 'vue'
import { significant } from '@/shared/numbers'
import { spreadDown, spreadLabels } from '@/shared/labels'
import type { Axis, ChartLine, ChartMark, ChartPoint } from '@/shared/charts'

const props = withDefaults(
  defineProps<{
    width?: number
    height?: number
    /** Room beside the axes, for numbers, titles, and labels at the ends of lines. */
    margin?: { left?: number; right?: number; top?: number; bottom?: number }
    x: Axis
    y: Axis
    lines?: readonly ChartLine[]
    points?: readonly ChartPoint[]
    marks?: readonly ChartMark[]
    /** Shaded between two values across. */
    span?: { from: number; to: number; words: string } | null
    /** All that it shows, in words. */
    words: string
    figure?: string
    /** What stands in it, at its upper left. */
    heading?: string
  }>(),
  { width: 350, height: 150, margin: () => ({}), lines: () => [], points: () => [], marks: () => [], span: null, figure: undefined, heading: '' },
)
/** Where the crosshair is, in values across; null while it is not shown. */
const at = defineModel<number | null>('at', { default: null })
const svg = useTemplateRef<SVGSVGElement>('svg')
defineExpose({ svg })

const box = computed(() => {
  const { left = 38, right = 4, top = 8, bottom = props.x.title ? 30 : 16 } = props.margin
  return { left, right: props.width - right, top, bottom: props.height - bottom }
})
const across = (value: number) => box.value.left + (box.value.right - box.value.left) * props.x.share(value)
const up = (value: number) => box.value.bottom + (box.value.top - box.value.bottom) * props.y.share(value)

const drawn = computed(() =>
  props.lines.map((line) => {
    const there = (_: number, i: number) => (line.ys[i] ?? null) !== null
    const banded = (_: number, i: number) => (line.low?.[i] ?? null) !== null && (line.high?.[i] ?? null) !== null
    const last = line.ys.reduce<number>((end, value, i) => (value === null ? end : i), -1)
    return {
      ...line,
      d: lineThrough<number>().defined(there).x(across).y((_, i) => up(line.ys[i]!))([...line.xs]) ?? '',
      band: line.low && line.high ? (area<number>().defined(banded).x(across).y0((_, i) => up(line.low![i]!)).y1((_, i) => up(line.high![i]!))([...line.xs]) ?? '') : '',
      end: line.label && last >= 0 ? up(line.ys[last]!) : null,
    }
  }),
)
const ends = computed(() => {
  const labelled = drawn.value.filter((line) => line.end !== null)
  const places = spreadDown(labelled.map((line) => line.end!), 13, box.value.bottom - 3)
  return labelled.map((line, i) => ({ key: line.key, words: line.label, ink: line.ink, y: places[i]! }))
})
const named = computed(() => props.lines.filter((line) => line.name))
const marked = computed(() => {
  const upright = props.marks.filter((mark) => mark.x !== undefined && mark.words)
  const places = spreadLabels(upright.map((mark) => ({ name: mark.words!, at: across(mark.x!) })), box.value.left, box.value.right)
  return upright.map((mark, i) => ({ words: mark.words, x: places[i]! }))
})

/** What a line has at a value across: between its neighbours, or for points the nearest. */
function readOf(line: ChartLine, value: number): { x: number; y: number } | null {
  const next = line.xs.findIndex((x) => x >= value)
  const [left, right] = next < 0 ? [line.xs.length - 1, line.xs.length - 1] : [Math.max(0, next - 1), next]
  const [x0, x1, y0, y1] = [line.xs[left]!, line.xs[right]!, line.ys[left] ?? null, line.ys[right] ?? null]
  if (line.isPoints || value > x1 || value < x0) {
    const [x, y] = Math.abs(value - x0) < Math.abs(value - x1) ? [x0, y0] : [x1, y1]
    return y === null ? null : { x, y }
  }
  return y0 === null || y1 === null ? null : { x: value, y: x1 > x0 ? y0 + ((y1 - y0) * (value - x0)) / (x1 - x0) : y1 }
}
const read = computed(() => {
  if (at.value === null) return null
  const found = named.value.flatMap((line) => {
    const there = readOf(line, at.value!)
    return there ? [{ key: line.key, ink: line.ink, x: across(there.x), y: up(there.y), words: `${line.name} ${significant(there.y, 3)}` }] : []
  })
  found.sort((a, b) => a.y - b.y)
  const places = spreadDown(found.map((one) => Math.max(box.value.top + 9, one.y - 5)), 12, box.value.bottom - 4)
  const isLeft = props.x.share(at.value) > 0.6
  return { x: across(at.value), isLeft, found: found.map((one, i) => ({ ...one, at: places[i]! })) }
})
const readWords = computed(() => (at.value === null ? '' : `${significant(at.value, 3)} ${props.x.name ?? props.x.title}: ${read.value!.found.map((one) => one.words).join(', ')}`))

function onMove(event: PointerEvent) {
  const frame = svg.value!.getBoundingClientRect()
  const place = ((event.clientX - frame.left) / frame.width) * props.width
  at.value = props.x.value(Math.min(1, Math.max(0, (place - box.value.left) / (box.value.right - box.value.left))))
}
function onKey(event: KeyboardEvent) {
  const step = { ArrowRight: 0.01, ArrowLeft: -0.01, ArrowUp: 0.1, ArrowDown: -0.1 }[event.key]
  if (!step) return
  event.preventDefault()
  at.value = props.x.value(Math.min(1, Math.max(0, (at.value === null ? 0.5 : props.x.share(at.value)) + step)))
}
const crosshair = computed(() =>
  named.value.length
    ? { tabindex: 0, role: 'slider', 'aria-label': `Crosshair: ${props.words}`, 'aria-valuemin': 0, 'aria-valuemax': 100, 'aria-valuenow': Math.round(100 * props.x.share(at.value ?? props.x.value(0.5))), 'aria-valuetext': readWords.value || 'not shown' }
    : {},
)
</script>

<template>
  <div class="line-chart" v-bind="crosshair" v-on="named.length ? { pointermove: onMove, pointerleave: () => (at = null), keydown: onKey, blur: () => (at = null) } : {}">
    <svg ref="svg" class="chart" :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="words" :data-figure="figure">
      <rect v-if="span" class="span" :x="across(span.from)" :y="box.top" :width="Math.max(0, across(span.to) - across(span.from))" :height="box.bottom - box.top">
        <title>{{ span.words }}</title>
      </rect>
      <path v-for="line in drawn" :key="line.key" class="band" :d="line.band" :fill="line.wash ?? line.ink" :opacity="line.wash ? 1 : 0.16" :data-band="line.band ? line.key : undefined" />
      <g v-for="tick in y.ticks" :key="tick">
        <path class="grid" :d="`M${box.left} ${up(tick)}H${box.right}`" />
        <text class="end" :x="box.left - 4" :y="up(tick) + 3.5">{{ y.label(tick) }}</text>
      </g>
      <text v-for="tick in x.ticks" :key="tick" class="middle" :x="across(tick)" :y="box.bottom + 12">{{ x.label(tick) }}</text>
      <path class="axis" :d="`M${box.left} ${box.top}V${box.bottom}H${box.right}`" />
      <path v-for="mark in marks" :key="`${mark.x}/${mark.y}/${mark.words}`" :d="mark.x === undefined ? `M${box.left} ${up(mark.y!)}H${box.right}` : `M${across(mark.x)} ${box.top}V${box.bottom}`" :stroke="mark.ink ?? 'var(--hand)'" stroke-width="1.2" :stroke-dasharray="mark.dash ?? '2 2'">
        <title v-if="mark.title">{{ mark.title }}</title>
      </path>
      <path v-for="line in drawn" :key="line.key" class="line" :d="line.d" :stroke="line.ink" :stroke-width="line.width ?? 1.8" :stroke-dasharray="line.dash" :data-line="line.key" />
      <g v-for="point in points" :key="point.key" :class="{ faint: point.isFaint }">
        <title v-if="point.words">{{ point.words }}</title>
        <path v-if="point.low != null && point.high != null" :d="`M${across(point.x)} ${up(point.low)}V${up(point.high)}`" stroke="var(--hand)" />
        <circle v-if="point.y !== null" :cx="across(point.x)" :cy="up(point.y)" :r="point.radius ?? 4" :fill="point.isOpen ? 'var(--paper)' : 'var(--hand)'" stroke="var(--hand)" />
        <path v-if="point.y !== null && point.isBound" class="upward" :d="`M${across(point.x)} ${up(point.y) - 4}v-7m-3 3l3 -3l3 3`" />
      </g>
      <slot :across="across" :up="up" :box="box" />
      <text v-if="heading" :x="box.left + 5" :y="box.top + 9">{{ heading }}</text>
      <text v-for="mark in marked" :key="mark.words" class="middle" :x="mark.x" :y="box.bottom + 12">{{ mark.words }}</text>
      <text v-for="end in ends" :key="end.key" class="label" :x="box.right + 6" :y="end.y + 4" :style="{ fill: end.ink }">{{ end.words }}</text>
      <g v-if="read" class="read" data-crosshair="chart">
        <path :d="`M${read.x} ${box.top}V${box.bottom}`" />
        <template v-for="one in read.found" :key="one.key">
          <circle :cx="one.x" :cy="one.y" r="3" :fill="one.ink" />
          <text :class="read.isLeft ? 'end' : ''" :x="read.x + (read.isLeft ? -6 : 6)" :y="one.at" :style="{ fill: one.ink }">{{ one.words }}</text>
        </template>
      </g>
      <text v-if="x.title" class="middle" :x="(box.left + box.right) / 2" :y="height - 4">{{ x.title }}</text>
      <text v-if="y.title" class="middle" :transform="`translate(13 ${(box.top + box.bottom) / 2}) rotate(-90)`">{{ y.title }}</text>
    </svg>
  </div>
</template>

<style scoped>
.line,
.upward {
  fill: none;
}
.upward {
  stroke: var(--hand);
  stroke-width: 1.6;
}
.span {
  fill: var(--amber-wash);
  opacity: 0.7;
}
.faint {
  opacity: 0.35;
}
.chart .label {
  font-weight: 600;
}
.read {
  pointer-events: none;
}
.read path {
  stroke: var(--ink-soft);
  stroke-dasharray: 3 3;
}
.read text {
  font-weight: 600;
  paint-order: stroke;
  stroke: var(--ground);
  stroke-width: 3px;
}
</style>
