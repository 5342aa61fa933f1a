<script setup lang="ts">
/** The plate seen from below, to scale, drawn from the readings; what is not measured is dashed at a typical size. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { significant } from '@/shared/numbers'
import { litBy } from './plateCircles'
import { term } from '@/catalogue/catalogue'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{ plate: Schemas['PlateLayoutOut']; lit: string; family: UnitFamily }>()
const emit = defineEmits<{ pick: [key: string] }>()

const circles = computed(() => new Map(props.plate.circles.map((circle) => [circle.key, circle])))
const rim = computed(() => circles.value.get('can.outside_diameter')!)
const half = computed(() => Math.max(...props.plate.circles.map((c) => c.diameter_mm), 20) / 2 + 11)
const now = computed(() => litBy(props.lit))
const unit = computed(() => shownUnit('mm', props.family))
/** The scale: as long as it says, in the family of the numbers. */
const bar = computed(() => (props.family === 'metric' ? { mm: 10, words: '10 mm' } : { mm: 0.5 / unit.value.factor, words: '0.5 in' }))
const line = computed(() => half.value / 130)

function d(key: string): number | null {
  return circles.value.get(key)?.diameter_mm ?? null
}

/** A ring between two circles as one path. */
function ring(outer: number, inner: number): string {
  const circle = (r: number) => `M${r} 0A${r} ${r} 0 1 0 ${-r} 0A${r} ${r} 0 1 0 ${r} 0Z`
  return circle(outer / 2) + circle(inner / 2)
}

/** Three quarters of a circle: how an inside thread is drawn from its end. */
function threadArc(diameter: number): string {
  const r = diameter / 2
  return `M0 ${-r}A${r} ${r} 0 1 0 ${r} 0`
}

const gasket = computed(() => {
  const [outer, inner] = [circles.value.get('gasket.outside_diameter')!, circles.value.get('gasket.inside_diameter')!]
  return {
    path: ring(Math.max(outer.diameter_mm, inner.diameter_mm), Math.min(outer.diameter_mm, inner.diameter_mm)),
    measured: outer.measured && inner.measured,
  }
})
const holes = computed(() =>
  props.plate.holes.map((hole) => ({
    ...hole,
    path: `M${hole.outline_mm.map(([x, y]) => `${x} ${-y}`).join('L')}Z`,
    lit: now.value.group === hole.group,
  })),
)
const bore = computed(() => d('plate.centre_hole_diameter') ?? d('thread.minor_diameter') ?? 0)
const dimension = computed(() => {
  const circle = now.value.circle ? circles.value.get(now.value.circle) : undefined
  if (!circle) return null
  const shown = significant(circle.diameter_mm * unit.value.factor, 4)
  return { r: circle.diameter_mm / 2, words: `⌀ ${shown} ${unit.value.symbol}${circle.measured ? '' : ', typical'}` }
})
const description = computed(() => {
  const count = props.plate.holes.length
  const wrong = props.plate.holes.filter((hole) => hole.wrong).length
  const rimWords = `a plate of ${significant(rim.value.diameter_mm, 3)} mm${rim.value.measured ? '' : ' (typical)'}`
  return `Tapping plate from below: ${rimWords} with ${count} inlet holes${wrong ? `, ${wrong} of them where they cannot be` : ''}.`
})

function dashed(key: string): string | undefined {
  return circles.value.get(key)?.measured ? undefined : `${4 * line.value} ${3 * line.value}`
}

function title(key: string): string {
  const circle = circles.value.get(key)!
  return `${term('plate_circle', key)}: ${significant(circle.diameter_mm * unit.value.factor, 4)} ${unit.value.symbol}${circle.measured ? '' : ', typical size, not measured'}`
}

const STUDS = ['circuit.stud.greatest', 'circuit.stud', 'circuit.stud.least'] as const
</script>

<template>
  <svg class="plate" :viewBox="`${-half} ${-half} ${2 * half} ${2 * half}`" role="img" :aria-label="description">
    <defs>
      <pattern id="rubber" :width="3 * line" :height="3 * line" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect class="rubber-ground" :width="3 * line" :height="3 * line" />
        <path class="rubber-line" :d="`M0 0V${3 * line}`" :stroke-width="1.3 * line" />
      </pattern>
      <marker id="tip" viewBox="-8 -4 8 8" markerWidth="7" markerHeight="7" orient="auto-start-reverse">
        <path class="tip" d="M0 0L-8 3V-3Z" />
      </marker>
    </defs>
    <path class="cross" :stroke-width="0.6 * line" :stroke-dasharray="`${9 * line} ${2 * line} ${2 * line} ${2 * line}`" :d="`M${-half + 2} 0H${half - 2}M0 ${-half + 2}V${half - 9}`" />
    <circle class="rim" :r="rim.diameter_mm / 2" :stroke-width="1.6 * line" :stroke-dasharray="dashed(rim.key)" @click="emit('pick', 'can.outside_diameter')">
      <title>{{ title(rim.key) }}</title>
    </circle>
    <path class="gasket" :class="{ guessed: !gasket.measured }" :d="gasket.path" :stroke-width="1.2 * line" :stroke-dasharray="gasket.measured ? undefined : `${4 * line} ${3 * line}`" @click="emit('pick', 'gasket.outside_diameter')">
      <title>{{ title('gasket.outside_diameter') }}; {{ title('gasket.inside_diameter') }}</title>
    </path>
    <circle v-if="d('anti_drain.lip_diameter')" class="lip" :r="d('anti_drain.lip_diameter')! / 2" :stroke-width="line" :stroke-dasharray="`${6 * line} ${3 * line}`">
      <title>{{ title('anti_drain.lip_diameter') }}</title>
    </circle>
    <path v-for="(hole, i) in holes" :key="i" class="hole" :class="{ wrong: hole.wrong, lit: hole.lit }" :d="hole.path" :stroke-width="(hole.wrong || hole.lit ? 2 : 1.2) * line" :stroke-dasharray="plate.hole_circles_measured ? undefined : `${5 * line} ${2 * line}`" @click="emit('pick', `holes.inlet[${hole.group}]`)" />
    <circle class="opening" :r="bore / 2" :stroke-width="1.2 * line" />
    <path class="thread" :d="threadArc(d('thread.major_diameter')!)" :stroke-width="line" :stroke-dasharray="dashed('thread.major_diameter')" @click="emit('pick', 'thread.major_diameter')">
      <title>{{ title('thread.major_diameter') }}</title>
    </path>
    <template v-for="key in STUDS" :key="key">
      <circle v-if="d(key)" class="stud" :class="{ between: key !== 'circuit.stud' }" :r="d(key)! / 2" :stroke-width="(key === 'circuit.stud' ? 1.6 : 0.9) * line" :stroke-dasharray="key === 'circuit.stud' ? undefined : `${3 * line} ${2 * line}`">
        <title>{{ title(key) }}</title>
      </circle>
    </template>
    <g v-if="dimension" class="dimension">
      <circle :r="dimension.r" :stroke-width="2.4 * line" />
      <path :d="`M${-dimension.r} 0V${half - 7}M${dimension.r} 0V${half - 7}`" :stroke-width="0.8 * line" />
      <path :d="`M${-dimension.r} ${half - 8}H${dimension.r}`" :stroke-width="1.2 * line" marker-start="url(#tip)" marker-end="url(#tip)" />
      <text :y="half - 1.6" :font-size="11.2 * line">{{ dimension.words }}</text>
    </g>
    <g v-else class="scale">
      <path :d="`M${-half + 3} ${half - 4}h${bar.mm}m${-bar.mm} -1.5v3m${bar.mm} -3v3`" :stroke-width="line" />
      <text :x="-half + 5 + bar.mm" :y="half - 2.6" :font-size="11.2 * line">{{ bar.words }}</text>
    </g>
  </svg>
</template>

<style scoped>
.plate {
  display: block;
  width: 100%;
  height: 100%;
  min-height: 0;
}
.rim {
  fill: var(--slate-wash);
  stroke: var(--slate);
  cursor: pointer;
}
.gasket {
  fill: url(#rubber);
  fill-rule: evenodd;
  stroke: var(--ink);
  cursor: pointer;
}
.gasket.guessed {
  fill-opacity: 0.25;
}
.rubber-ground {
  fill: var(--ink-soft);
}
.rubber-line {
  stroke: var(--ink);
}
.lip,
.cross {
  fill: none;
  stroke: var(--ink-soft);
}
.hole {
  fill: var(--amber-wash);
  stroke: var(--amber);
  cursor: pointer;
}
.hole.lit {
  stroke: var(--hand);
  fill: var(--hand-wash);
}
.hole.wrong {
  fill: var(--rust-wash);
  stroke: var(--rust);
}
.opening {
  fill: var(--paper);
  stroke: var(--slate);
}
.thread {
  fill: none;
  stroke: var(--slate);
  cursor: pointer;
}
.stud {
  fill: none;
  stroke: var(--amber);
}
.stud.between {
  stroke: var(--ink-soft);
}
.dimension circle,
.dimension path {
  fill: none;
  stroke: var(--hand);
}
.tip {
  fill: var(--hand);
}
.dimension text {
  fill: var(--hand);
  font-family: var(--head);
  font-weight: 600;
  text-anchor: middle;
}
.scale path {
  stroke: var(--ink-soft);
}
.scale text {
  fill: var(--ink-soft);
}
</style>
