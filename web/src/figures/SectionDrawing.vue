<script setup lang="ts">
/** The section through the whole filter, to scale, drawn from the readings; what is not measured is dashed. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { significant } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{
  section: Schemas['SectionLayoutOut']
  lit: string
  family: UnitFamily
  /** Shares of the oil, where its ways are drawn as wide as what goes there. */
  flow?: { media: number; bypass: number; defects: number }
}>()
defineEmits<{ pick: [key: string] }>()

const MARGIN = 11
/** Whatever size was typed, no more lines than can be told apart. */
const MOST_LINES = 60
const unit = computed(() => shownUnit('mm', props.family))
const box = computed(() => {
  const { radius_mm: r, bottom_mm: low, top_mm: high } = props.section
  return { x: -r - MARGIN, y: -high - MARGIN, width: 2 * (r + MARGIN), height: high - low + 2 * MARGIN }
})
const line = computed(() => Math.max(box.value.width, box.value.height) / 300)

function path(points: readonly number[][], side: 1 | -1, closed = true): string {
  return `M${points.map(([x, y]) => `${side * x!} ${-y!}`).join('L')}${closed ? 'Z' : ''}`
}
const SIDES = [1, -1] as const
const dash = computed(() => `${4 * line.value} ${2.5 * line.value}`)

/** A spring is drawn as the zigzag of its coils instead of its box. */
function coils(points: readonly number[][]): string {
  const xs = points.map(([x]) => x!)
  const ys = points.map(([, y]) => y!)
  const [half, low, high] = [Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const turns = Math.min(MOST_LINES, Math.max(4, 2 * Math.round((high - low) / 3)))
  return `M${Array.from({ length: turns + 1 }, (_, i) => `${i % 2 ? half : -half} ${-(low + ((high - low) * i) / turns)}`).join('L')}`
}

/** Lines across the media: pleats seen from the side. */
function pleats(points: readonly number[][], side: 1 | -1): string {
  const xs = points.map(([x]) => x!)
  const ys = points.map(([, y]) => y!)
  const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const count = Math.min(MOST_LINES, Math.max(2, Math.round((right - left) / 2.2)))
  return Array.from({ length: count - 1 }, (_, i) => left + ((right - left) * (i + 1)) / count)
    .map((x) => `M${side * x} ${-low}V${-high}`)
    .join('')
}

const WIDEST = 7
/** How wide a way of the oil is drawn, in lines; without shares all are alike. */
function wayWidth(kind: string): number {
  if (!props.flow) return 1.5
  if (kind === 'bypass') return props.flow.bypass > 0 ? 0.6 + WIDEST * props.flow.bypass : 0
  return 0.6 + WIDEST * (kind === 'filtered' ? 1 : props.flow.media + props.flow.defects)
}
/** Across the media at a third of its height, where defects let oil past it. */
const defectWay = computed(() => {
  const media = props.section.parts.find((part) => part.material === 'media')
  if (!props.flow || !(props.flow.defects > 0) || !media) return null
  const xs = media.outline_mm.map(([x]) => x!)
  const ys = media.outline_mm.map(([, y]) => y!)
  const y = Math.min(...ys) + (Math.max(...ys) - Math.min(...ys)) / 3
  return { points: [[Math.max(...xs) + 3, y], [Math.min(...xs) - 3, y]], width: 0.6 + WIDEST * props.flow.defects }
})

const dimension = computed(() => {
  const dimensionInHand = props.section.dimensions.find((dimension) => dimension.key === props.lit)
  if (!dimensionInHand) return null
  const [[x0, y0], [x1, y1]] = [dimensionInHand.start_mm, dimensionInHand.end_mm] as [[number, number], [number, number]]
  const length = Math.hypot(x1 - x0, y1 - y0)
  const upright = x0 === x1
  const small = length < 14 * line.value
  const words = `${upright || !dimensionInHand.key.endsWith('diameter') ? '' : '⌀ '}${significant(length * unit.value.factor, 3)} ${unit.value.symbol}`
  // arrows from outside, and the words beside, where there is no room between the tips
  const out = 9 * line.value
  const d = !small
    ? `M${x0} ${-y0}L${x1} ${-y1}`
    : upright
      ? `M${x0} ${-(y0 - out)}L${x0} ${-y0}M${x1} ${-(y1 + out)}L${x1} ${-y1}`
      : `M${x0 - out} ${-y0}L${x0} ${-y0}M${x1 + out} ${-y1}L${x1} ${-y1}`
  const at = upright
    ? { x: x0 + (x0 < 0 ? -3 : 3) * line.value, y: -(y0 + y1) / 2 + 3 * line.value, anchor: x0 < 0 && !small ? 'end' : 'start' }
    : { x: small ? x1 + out + 2 * line.value : (x0 + x1) / 2, y: -y0 - 2.5 * line.value, anchor: small ? 'start' : 'middle' }
  if (upright && x0 < 0) return { d, words, small, at: { x: x0 - 3 * line.value, y: -(y0 + y1) / 2, anchor: 'middle', turned: true } }
  return { d, words, small, at: { ...at, turned: false } }
})
const description = computed(() => {
  const guessed = new Set(props.section.parts.filter((part) => part.guessed).map((part) => part.key.split('.')[0]))
  const size = `${significant(2 * props.section.radius_mm * unit.value.factor, 3)} by ${significant((props.section.top_mm - props.section.bottom_mm) * unit.value.factor, 3)} ${unit.value.symbol}`
  return `Section through the filter, ${size}${guessed.size ? `; typical sizes for ${[...guessed].join(', ')}` : ''}.${props.section.problems.map((problem) => ` ${problem.message}.`).join('')}`
})
</script>

<template>
  <figure class="section">
    <svg :viewBox="`${box.x} ${box.y} ${box.width} ${box.height}`" role="img" :aria-label="description">
      <defs>
        <pattern id="cut-steel" :width="3.2 * line" :height="3.2 * line" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path class="hatch" :d="`M0 0V${3.2 * line}`" :stroke-width="0.9 * line" />
        </pattern>
        <pattern id="cut-rubber" :width="3 * line" :height="3 * line" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect class="rubber-ground" :width="3 * line" :height="3 * line" />
          <path class="rubber-line" :d="`M0 0V${3 * line}M0 0H${3 * line}`" :stroke-width="0.8 * line" />
        </pattern>
        <marker id="oil-tip" viewBox="-7 -3.5 7 7" :markerWidth="flow ? 2.4 : 4.2" :markerHeight="flow ? 2.4 : 4.2" orient="auto">
          <path d="M0 0L-7 3V-3Z" fill="context-stroke" />
        </marker>
        <marker id="size-tip" viewBox="-8 -4 8 8" markerWidth="7" markerHeight="7" orient="auto-start-reverse">
          <path class="tip" d="M0 0L-8 3V-3Z" />
        </marker>
      </defs>
      <path class="axis" :d="`M0 ${box.y + 3}V${box.y + box.height - 3}`" :stroke-width="0.5 * line" :stroke-dasharray="`${8 * line} ${2 * line} ${2 * line} ${2 * line}`" />
      <template v-for="(part, i) in section.parts" :key="i">
        <path v-if="part.material === 'spring'" class="spring" :class="{ lit: part.key === lit }" :d="coils(part.outline_mm)" :stroke-width="1.4 * line" :stroke-dasharray="part.guessed ? dash : undefined" @click="$emit('pick', part.key)" />
        <g v-for="side in SIDES" v-else :key="side">
          <path :class="[part.material, { guessed: part.guessed, lit: part.key === lit }]" class="part" :d="path(part.outline_mm, side)" :stroke-width="0.9 * line" :stroke-dasharray="part.guessed ? dash : undefined" @click="$emit('pick', part.key)" />
          <path v-if="part.material === 'media'" class="pleats" :d="pleats(part.outline_mm, side)" :stroke-width="0.6 * line" />
        </g>
      </template>
      <g v-for="(way, i) in section.ways" :key="`way-${i}`">
        <path v-for="side in way.kind === 'bypass' ? ([1] as const) : SIDES" :key="side" class="way" :class="way.kind" :d="path(way.points_mm, side, false)" :stroke-width="wayWidth(way.kind) * line" :stroke-dasharray="way.kind === 'bypass' ? `${4 * line} ${3 * line}` : undefined" marker-end="url(#oil-tip)" />
      </g>
      <template v-if="defectWay">
        <path v-for="side in SIDES" :key="`defect-${side}`" class="way bypass" data-way="defects" :d="path(defectWay.points, side, false)" :stroke-width="defectWay.width * line" marker-end="url(#oil-tip)" />
      </template>
      <g v-if="dimension" class="dimension">
        <path :d="dimension.d" :stroke-width="1.1 * line" marker-end="url(#size-tip)" :marker-start="dimension.small ? undefined : 'url(#size-tip)'" />
        <text
          :x="dimension.at.x"
          :y="dimension.at.y"
          :font-size="11.2 * line"
          :text-anchor="dimension.at.anchor"
          :transform="dimension.at.turned ? `rotate(-90 ${dimension.at.x} ${dimension.at.y})` : undefined"
        >
          {{ dimension.words }}
        </text>
      </g>
    </svg>
    <figcaption>
      <span class="unfiltered">unfiltered</span> · <span class="filtered">filtered</span>
      <template v-if="section.ways.some((way) => way.kind === 'bypass') && !flow"> · <span class="unfiltered">– –</span> past the media when the bypass is open</template>
      <template v-if="section.parts.some((part) => part.guessed)"> · dashed: not measured</template>
    </figcaption>
    <p v-for="problem in section.problems" :key="problem.message" class="said-wrong">{{ problem.message }}</p>
  </figure>
</template>

<style scoped>
.section {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  height: 20rem;
}
.axis {
  stroke: var(--ink-soft);
}
.hatch {
  stroke: var(--slate);
}
.rubber-ground {
  fill: var(--ink-soft);
}
.rubber-line {
  stroke: var(--ink);
}
.part {
  stroke: var(--ink);
  cursor: pointer;
}
.steel,
.tube {
  fill: url(#cut-steel);
}
.rubber {
  fill: url(#cut-rubber);
}
.media {
  fill: var(--amber-wash);
}
.potting {
  fill: var(--line-strong);
}
.guessed {
  fill-opacity: 0.45;
}
.pleats {
  stroke: var(--amber);
  pointer-events: none;
}
.spring {
  fill: none;
  stroke: var(--slate);
  stroke-linejoin: round;
  cursor: pointer;
}
.lit {
  stroke: var(--hand);
}
.part.lit {
  fill: var(--hand-wash);
}
.way {
  fill: none;
  stroke-linejoin: round;
  pointer-events: none;
}
.way.unfiltered,
.way.bypass {
  stroke: var(--rust);
}
.way.filtered {
  stroke: var(--amber);
}
.dimension path {
  stroke: var(--hand);
  fill: none;
}
.tip {
  fill: var(--hand);
  stroke: none;
}
.dimension text {
  fill: var(--hand);
  font-family: var(--head);
  font-weight: 650;
  paint-order: stroke;
  stroke: var(--ground);
  stroke-width: 0.9px;
}
figcaption {
  font-size: 0.78rem;
  color: var(--ink-soft);
  text-align: center;
}
figcaption .unfiltered {
  color: var(--rust);
}
figcaption .filtered {
  color: var(--amber-ink);
}
</style>
