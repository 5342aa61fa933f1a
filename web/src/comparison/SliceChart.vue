<script setup lang="ts">
/** Slices of several samples with their 95 % bands. */
import { computed, reactive, useTemplateRef } from 'vue'
import { bandPath, DASHES, upScale, valuePath, type BandIn } from '@/shared/bandChart'
import { useElementSize } from '@vueuse/core'
import { plainNumber, significant } from '@/shared/numbers'
import type { ShownUnit } from '@/catalogue/units'

export interface ShownBand extends BandIn {
  id: string
  label: string
  number: number
  colour: string
}

const props = defineProps<{
  bands: readonly ShownBand[]
  title: string
  acrossTitle: string
  unit: ShownUnit
  isLog: boolean
  mark: number
}>()

const MARGIN = { left: 56, top: 10, bottom: 40 }
const LETTER = 6.8
/** Room for the longest label at the end of a line. */
const room = computed(() => Math.min(190, Math.max(70, 20 + LETTER * Math.max(0, ...props.bands.map((band) => `${band.number} ${band.label}`.length)))))
const frame = useTemplateRef<HTMLElement>('frame')
const picture = useTemplateRef<SVGSVGElement>('picture')
defineExpose({ parts: () => ({ svg: picture.value, canvas: null, left: 0, top: 0 }) })
const size = reactive(useElementSize(frame))
const right = computed(() => Math.max(MARGIN.left + 60, size.width - room.value))
const bottom = computed(() => Math.max(MARGIN.top + 60, size.height - MARGIN.bottom))

const shown = computed(() =>
  props.bands.map((band) => {
    const times = (values: readonly (number | null)[]) => values.map((value) => (value === null ? null : value * props.unit.factor))
    return { ...band, value: times(band.value), low: times(band.low), high: times(band.high) }
  }),
)
const span = computed(() => {
  const along = props.bands[0]?.along ?? [0, 1]
  return [along[0]!, along[along.length - 1]!] as const
})
const x = computed(() => (value: number) => MARGIN.left + ((right.value - MARGIN.left) * (value - span.value[0])) / (span.value[1] - span.value[0]))
const y = computed(() => upScale(shown.value, props.isLog, bottom.value, MARGIN.top))
const ticksAcross = computed(() => {
  const [low, high] = span.value
  const step = high - low > 1000 ? 1000 : high - low > 250 ? 40 : 20
  const ticks: number[] = []
  for (let at = Math.ceil(low / step) * step; at <= high; at += step) ticks.push(at)
  return ticks
})
const drawn = computed(() =>
  shown.value.map((band, i) => {
    const last = band.value.reduce<number>((ticks, value, k) => (value !== null ? k : ticks), -1)
    return {
      ...band,
      area: bandPath(band, x.value, y.value),
      line: valuePath(band.along, band.value, x.value, y.value),
      dash: DASHES[i % DASHES.length],
      end: last < 0 ? null : { x: x.value(band.along[last]!), y: y.value.at(band.value[last]!) },
    }
  }),
)
/** Labels at the end of the lines, moved apart where they would lie on each other. */
const labels = computed(() => {
  const placed = drawn.value.flatMap((band) => (band.end ? [{ id: band.id, text: `${band.number} ${band.label}`, colour: band.colour, y: band.end.y }] : []))
  placed.sort((a, b) => a.y - b.y)
  for (let i = 1; i < placed.length; i += 1) placed[i]!.y = Math.max(placed[i]!.y, placed[i - 1]!.y + 13)
  let floor = bottom.value - 3
  for (const label of [...placed].reverse()) {
    label.y = Math.min(label.y, floor)
    floor = label.y - 13
  }
  return placed
})
const words = computed(
  () =>
    `${props.title} along ${props.acrossTitle}: ${shown.value
      .map((band) => {
        const [first, last] = [band.value.find((value) => value !== null), [...band.value].reverse().find((value) => value !== null)]
        return `${band.label} from ${first == null ? 'none' : significant(first, 2)} to ${last == null ? 'none' : significant(last, 2)}`
      })
      .join('; ')} ${props.unit.symbol}.`,
)
</script>

<template>
  <div ref="frame" class="slice">
    <svg v-if="size.width" ref="picture" class="chart" :width="size.width" :height="size.height" role="img" :aria-label="words" data-figure="slice">
      <g v-for="tick in y.ticks" :key="`y${tick}`">
        <path class="grid" :d="`M${MARGIN.left} ${y.at(tick)}H${right}`" />
        <text class="end" :x="MARGIN.left - 6" :y="y.at(tick) + 4">{{ plainNumber(tick, 6) }}</text>
      </g>
      <g v-for="tick in ticksAcross" :key="`x${tick}`">
        <path class="grid" :d="`M${x(tick)} ${MARGIN.top}V${bottom}`" />
        <text class="middle" :x="x(tick)" :y="bottom + 15">{{ plainNumber(tick, 6) }}</text>
      </g>
      <path class="axis" :d="`M${MARGIN.left} ${MARGIN.top}V${bottom}H${right}`" />
      <path v-if="mark >= span[0] && mark <= span[1]" class="mark" :d="`M${x(mark)} ${MARGIN.top}V${bottom}`" />
      <path v-for="band in drawn" :key="`band-${band.id}`" class="band" :d="band.area" :fill="band.colour" :data-band="band.id" />
      <path v-for="band in drawn" :key="`line-${band.id}`" class="line" :d="band.line" :stroke="band.colour" :stroke-dasharray="band.dash" />
      <text v-for="label in labels" :key="label.id" class="label" :x="right + 6" :y="label.y + 4" :style="{ fill: label.colour }">{{ label.text }}</text>
      <text class="middle title" :x="(MARGIN.left + right) / 2" :y="bottom + 33">{{ acrossTitle }}</text>
      <text class="middle title" :transform="`translate(13 ${(MARGIN.top + bottom) / 2}) rotate(-90)`">{{ title }}, {{ unit.symbol }}</text>
    </svg>
  </div>
</template>

<style scoped>
.slice {
  min-height: 0;
  overflow: hidden;
}
.chart text {
  font-size: 11.5px;
}
.chart .title {
  font-size: 12.5px;
  fill: var(--ink);
}
.chart .label {
  font-weight: 600;
}
.band {
  opacity: 0.16;
}
.line {
  fill: none;
  stroke-width: 2.2;
}
.mark {
  stroke: var(--hand);
  stroke-width: 1.3;
}
</style>
