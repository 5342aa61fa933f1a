<script setup lang="ts">
/** Efficiency over particle size: counts with their intervals, the curve with its band, claims, and the screening estimate. */
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '@/api/client'
import ChartFrame from '@/shared/ChartFrame.vue'
import { shownNumber, significant } from '@/shared/numbers'
import { betaOf, passing, placing, readAt, type Upward } from './efficiencyChart'

const props = defineProps<{ station: Schemas['EfficiencyStationOut']; upward: Upward }>()
const BOX = { left: 44, right: 636, top: 18, bottom: 292 }
const places = computed(() => placing(props.station, props.upward, BOX))

function path(sizes: readonly number[], values: readonly (number | null)[]): string {
  let drawn = ''
  let pen = 'M'
  sizes.forEach((size, i) => {
    const value = values[i] ?? null
    if (value === null) return void (pen = 'M')
    drawn += `${pen}${places.value.x(size).toFixed(1)} ${places.value.y(value).toFixed(1)}`
    pen = 'L'
  })
  return drawn
}
function band(sizes: readonly number[], low: readonly (number | null)[], high: readonly (number | null)[]): string {
  if (!sizes.length || low.some((item) => item === null) || high.some((item) => item === null)) return ''
  return `${path(sizes, low)}L${path([...sizes].reverse(), [...high].reverse()).slice(1)}Z`
}

const curves = computed(() =>
  (props.station.test?.curves ?? []).map((curve) => {
    const inside = curve.sizes_um_c.map((size) => size >= curve.counted_from_um_c && size <= curve.counted_to_um_c)
    const only = (keep: boolean) => curve.percent.map((value, i) => (inside[i] === keep ? value : null))
    // the dashed ends join the line
    const beyond = curve.percent.map((value, i) => (!inside[i] || !(inside[i - 1] ?? true) || !(inside[i + 1] ?? true) ? value : null))
    return {
      readAs: curve.read_as,
      band: band(curve.sizes_um_c, curve.low_percent, curve.high_percent),
      line: path(curve.sizes_um_c, only(true)),
      beyond: path(curve.sizes_um_c, beyond),
    }
  }),
)
const points = computed(() =>
  (props.station.test?.points ?? []).flatMap((point) =>
    point.sizes_um_c.map((size) => ({
      key: `${point.size_um}/${size}`,
      x: places.value.x(size),
      y: point.percent === null ? null : places.value.y(point.percent),
      low: places.value.y(point.low_percent ?? point.percent ?? 0),
      high: places.value.y(point.high_percent ?? 100),
      open: point.percent === null,
      known: point.percent !== null || point.low_percent !== null,
      out: point.why_not !== '',
      words: `${point.size_um} µm: ${point.percent === null ? `at least ${significant(point.low_percent ?? 0, 3)} %` : `${significant(point.percent, 3)} %`}${point.why_not ? `, left out: ${point.why_not}` : ''}${point.sheds ? ', sheds' : ''}`,
    })),
  ),
)
const claims = computed(() =>
  props.station.claims.flatMap((claim, i) =>
    claim.percent === null
      ? []
      : claim.sizes_um_c.map((size) => ({
          key: `${i}/${size}`,
          x: places.value.x(size),
          y: places.value.y(claim.percent!),
          way: ['>=', '>'].includes(claim.relation) ? -1 : ['<=', '<'].includes(claim.relation) ? 1 : 0,
          refuted: claim.verdict === 'claim_higher',
          words: `${claim.source}: ${claim.words}`,
        })),
  ),
)
const estimate = computed(() => {
  const estimate = props.station.estimate
  return estimate && { band: band(estimate.sizes_um_c, estimate.low_percent, estimate.high_percent), line: path(estimate.sizes_um_c, estimate.percent) }
})

const picture = useTemplateRef<SVGSVGElement>('picture')
const size = ref(20)
const read = computed(() => readAt(props.station, size.value))
const read20 = computed(() => (read.value ? `${read.value.size.toPrecision(3)} µm(c)` : ''))
const description = computed(() => {
  const point = read.value
  if (!point) return ''
  return `E ${point.isEstimate ? 'about ' : ''}${shownNumber({ value: point.percent, low: point.low, high: point.high })} % · β ${significant(betaOf(point.percent), 3)} · of 1000 particles of this size, ${significant(passing(point.percent), 2)} pass`
})
function onMove(event: PointerEvent) {
  const box = picture.value?.getBoundingClientRect()
  if (!box) return
  const at = ((event.clientX - box.left) / box.width) * 660
  size.value = places.value.size(Math.min(BOX.right, Math.max(BOX.left, at)))
}
function onKey(event: KeyboardEvent) {
  const step = { ArrowRight: 1.04, ArrowLeft: 1 / 1.04, ArrowUp: 1.25, ArrowDown: 0.8 }[event.key]
  if (!step) return
  event.preventDefault()
  size.value = places.value.size(Math.min(BOX.right, Math.max(BOX.left, places.value.x(size.value * step))))
}
const words = computed(() => {
  const test = props.station.test
  const counted = test ? `${test.points.length} counted sizes, ${points.value.map((point) => point.words).join('; ')}.` : 'No counts.'
  return `${props.upward === 'beta' ? 'Filtration ratio' : 'Efficiency'} over particle size. ${counted} ${props.station.claims.length} claims.${props.station.estimate ? ' Screening estimate as a wide band.' : ''}`
})
</script>

<template>
  <figure class="efficiency">
    <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -->
    <div class="stage" tabindex="0" role="slider" aria-label="Particle size of the crosshair" aria-valuemin="1" aria-valuemax="100" :aria-valuenow="Math.round(size)" :aria-valuetext="`${read20} ${description}`" data-stop data-key="efficiency.crosshair" @pointermove="onMove" @keydown="onKey">
      <svg ref="picture" class="chart" viewBox="0 0 660 326" role="img" :aria-label="words" data-figure="efficiency">
        <path v-if="estimate" class="estimate-band" :d="estimate.band" />
        <ChartFrame v-bind="BOX" :across="places.across" :up="places.up" />
        <path v-if="estimate" class="estimate" :d="estimate.line" />
        <g v-for="curve in curves" :key="curve.readAs">
          <path v-if="curve.band" class="band" :d="curve.band" data-band="counts" />
          <path class="beyond" :d="curve.beyond" />
          <path class="curve" :d="curve.line" data-line="counts" />
        </g>
        <path v-if="read" class="cross" :d="`M${places.x(read.size)} ${BOX.top}V${BOX.bottom}M${BOX.left} ${places.y(read.percent)}H${BOX.right}`" />
        <!-- under the counts: a claim at a counted size must not hide its dot -->
        <g v-for="claim in claims" :key="claim.key" class="claim" :class="{ refuted: claim.refuted }" data-claim>
          <title>{{ claim.words }}</title>
          <path :d="`M${claim.x} ${claim.y - 8}l8 8l-8 8l-8 -8z`" />
          <path v-if="claim.way" class="way" :d="`M${claim.x - 8} ${claim.y}h-4m16 0h4M${claim.x} ${claim.y + 8 * claim.way}v${10 * claim.way}m-4 ${-5 * claim.way}l4 ${5 * claim.way}l4 ${-5 * claim.way}`" />
        </g>
        <g v-for="point in points" :key="point.key" :class="{ out: point.out }" data-point>
          <title>{{ point.words }}</title>
          <template v-if="point.known">
            <path class="interval" :d="`M${point.x - 4} ${point.low}h8m-4 0V${point.high}${point.open ? 'm-4 6l4 -6l4 6' : 'm-4 0h8'}`" />
            <circle v-if="point.y !== null" class="point" :cx="point.x" :cy="point.y" r="4" />
          </template>
        </g>
        <text class="middle title" :x="(BOX.left + BOX.right) / 2" y="322">particle size, µm(c)</text>
        <text class="middle title" transform="translate(12 150) rotate(-90)">{{ upward === 'beta' ? 'filtration ratio β' : 'efficiency E, %' }}</text>
      </svg>
    </div>
    <figcaption class="small">
      <template v-if="read">
        <b>{{ read20 }}</b> {{ description }}
        <span class="soft of">{{ read.of }}{{ read.extrapolated ? '; an extrapolation here' : '' }}</span>
      </template>
      <span v-else class="soft">No curve to read: {{ station.test?.why_no_curve || 'there is nothing yet' }}.</span>
    </figcaption>
  </figure>
</template>

<style scoped>
.stage {
  cursor: crosshair;
  touch-action: pan-y;
}
.estimate-band {
  fill: var(--amber-wash);
  opacity: 0.7;
}
.estimate {
  fill: none;
  stroke: var(--amber);
  stroke-width: 1.2;
  stroke-dasharray: 2 3;
}
.band {
  fill: var(--hand);
  opacity: 0.18;
}
.curve,
.beyond {
  fill: none;
  stroke: var(--hand);
  stroke-width: 2.2;
}
.beyond {
  stroke-dasharray: 5 4;
  stroke-width: 1.5;
}
.cross {
  stroke: var(--ink-soft);
  stroke-width: 0.8;
  stroke-dasharray: 3 3;
}
.point {
  fill: var(--ink);
}
.interval {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}
.out .point {
  fill: var(--paper);
  stroke: var(--ink);
}
.out {
  opacity: 0.55;
}
.claim path {
  fill: none;
  stroke: var(--slate);
  stroke-width: 1.8;
}
.claim.refuted path {
  stroke: var(--rust);
}
.chart :deep(text) {
  font-size: 12px;
}
.chart .title {
  font-size: 12.5px;
  fill: var(--ink);
}
.of {
  display: block;
}
figcaption {
  margin-top: 0.25rem;
  min-height: 1.4rem;
  padding-left: 2.6rem;
}
</style>
