<script setup lang="ts">
/** The bypass valve closed, opening and full open, its lift to scale. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { significant } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'
import { PLATE_THICKNESS, SEAT_HEIGHT, valveFigure } from './valveFigure'

const props = defineProps<{ valve: Schemas['ValveOut']; family: UnitFamily; lit: string }>()
const emit = defineEmits<{ pick: [key: string] }>()

const figure = computed(() => valveFigure(props.valve))
const line = computed(() => figure.value.width / 330)
/** Which part the reading being typed belongs to. */
const litPart = computed(() => /^bypass\.(spring|seat|lift)/.exec(props.lit)?.[1] ?? '')
const length = computed(() => shownUnit('mm', props.family))
const pressure = computed(() => shownUnit('kpa', props.family))
const names = computed(() =>
  figure.value.states.map((state) => ({
    ...state,
    lifted: `${significant(state.lift * length.value.factor, 2)} ${length.value.symbol}`,
    at: state.kpa === null ? '' : `${state.name === 'closed' ? 'below ' : ''}${significant(state.kpa * pressure.value.factor, 3)} ${pressure.value.symbol}`,
  })),
)
const description = computed(
  () => `Bypass valve in section, lift to scale: ${names.value.map((state) => `${state.name} ${state.at}, lift ${state.lifted}`).join('; ')}.`,
)

/** One side of the plate with its raised seat. */
function side(axis: number, sign: 1 | -1): string {
  const f = figure.value
  const [inner, outer, edge] = [f.seatInside / 2, f.seatOutside / 2, f.plate / 2].map((half) => axis + sign * half)
  const top = f.seatY - SEAT_HEIGHT - PLATE_THICKNESS
  return `M${inner} ${top}H${edge}V${top + PLATE_THICKNESS}H${outer}V${f.seatY}H${inner}Z`
}

/** The way of the oil through the lifted valve. */
function flow(axis: number, lift: number, sign: 1 | -1): string {
  const f = figure.value
  const y = f.seatY + lift / 2
  return `M${axis + (sign * f.seatInside) / 5} ${f.seatY - SEAT_HEIGHT - PLATE_THICKNESS - 2}V${y - 0.4 * lift}Q${axis + (sign * f.seatInside) / 5} ${y} ${axis + (sign * f.seatInside) / 2} ${y}H${axis + sign * (f.seatOutside / 2 + 2)}`
}
</script>

<template>
  <svg class="valve" :viewBox="`-1 -1 ${figure.width + 2} ${figure.height + 42 * line + 1}`" role="img" :aria-label="description">
    <defs>
      <pattern id="steel-cut" :width="5 * line" :height="5 * line" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path class="hatch" :d="`M0 0V${5 * line}`" :stroke-width="line" />
      </pattern>
    </defs>
    <g v-for="state in names" :key="state.name">
      <template v-if="state.lift > 0">
        <path v-for="sign in [1, -1] as const" :key="sign" class="oil" :d="flow(state.axis, state.lift, sign)" :stroke-width="Math.max(1.5 * line, state.lift / 4)" />
      </template>
      <path v-if="state.spring" class="spring" :class="{ lit: litPart === 'spring' }" :d="state.spring" :stroke-width="1.2 * line" @click="emit('pick', 'bypass.spring_wire_diameter')" />
      <circle v-for="(wire, i) in state.wires" :key="i" class="wire" :class="{ lit: litPart === 'spring' }" :cx="wire.x" :cy="wire.y" :r="figure.wire / 2" :stroke-width="0.8 * line" />
      <path v-for="sign in [1, -1] as const" :key="sign" class="steel" :class="{ lit: litPart === 'seat' }" :d="side(state.axis, sign)" :stroke-width="line" @click="emit('pick', 'bypass.seat_inside_diameter')" />
      <path class="rubber" :d="state.disc" :stroke-width="line" />
      <rect class="steel" :x="state.axis - figure.plate / 2" :y="figure.supportY" :width="figure.plate" height="1.2" :stroke-width="line" />
      <g v-if="state.lift > 0" class="dimension" :class="{ lit: litPart === 'lift' }">
        <path :d="`M${state.axis + figure.discWidth / 2} ${figure.seatY + state.lift}h${2.4}M${state.axis + figure.seatOutside / 2} ${figure.seatY}h${2.9}M${state.axis + figure.discWidth / 2 + 1.6} ${figure.seatY}v${state.lift}`" :stroke-width="line" />
      </g>
      <text :x="state.axis" :y="figure.height + 10 * line" :font-size="11.5 * line">{{ state.name }}</text>
      <text :x="state.axis" :y="figure.height + 23 * line" :font-size="11.2 * line" class="soft-text">{{ state.at }}</text>
      <text v-if="state.lift > 0" :x="state.axis" :y="figure.height + 35 * line" :font-size="11.2 * line" class="soft-text">lift {{ state.lifted }}</text>
    </g>
  </svg>
</template>

<style scoped>
.valve {
  display: block;
  width: 100%;
  max-height: 15rem;
}
.hatch {
  stroke: var(--slate);
}
.steel {
  fill: url(#steel-cut);
  stroke: var(--ink);
  cursor: pointer;
}
.rubber {
  fill: var(--ink-soft);
  stroke: var(--ink);
}
.spring {
  fill: none;
  stroke: var(--slate);
  stroke-linejoin: round;
  cursor: pointer;
}
.wire {
  fill: var(--slate-wash);
  stroke: var(--ink);
  pointer-events: none;
}
.oil {
  fill: none;
  stroke: var(--rust);
  stroke-linecap: round;
  opacity: 0.75;
}
.lit {
  stroke: var(--hand);
}
.dimension.lit path {
  stroke-width: 0.35px;
}
.dimension path {
  stroke: var(--hand);
  fill: none;
}
text {
  font-family: var(--body);
  fill: var(--ink);
  text-anchor: middle;
}
.soft-text {
  fill: var(--ink-soft);
}
</style>
