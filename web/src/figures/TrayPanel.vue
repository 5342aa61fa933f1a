<script setup lang="ts">
/** The parts on the scale: the whole before the cut against its parts, to scale, and what compares cans. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { significant, withUncertainty } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'
import { term } from '@/catalogue/catalogue'

const props = defineProps<{ tray: Schemas['MassBalanceOut']; strength: Schemas['CanStrengthOut']; parts: Readonly<Record<string, string>>; family: UnitFamily }>()
defineEmits<{ pick: [key: string] }>()

const mass = computed(() => shownUnit('g', props.family))
const length = computed(() => shownUnit('mm', props.family))
const pressure = computed(() => shownUnit('kpa', props.family))
const weighed = computed(() => props.tray.parts.reduce((sum, part) => sum + (part.mass_g ?? 0), 0))
const span = computed(() => Math.max(props.tray.whole_g ?? 0, weighed.value, 1))
const bars = computed(() => {
  let at = 0
  return props.tray.parts.flatMap((part, i) => {
    if (part.mass_g === null) return []
    const bar = { ...part, x: (350 * at) / span.value, width: (350 * part.mass_g) / span.value, shade: 0.25 + 0.1 * (i % 4) }
    at += part.mass_g
    return [bar]
  })
})
const rest = computed(() => (props.tray.whole_g !== null && weighed.value > 0 ? props.tray.whole_g - weighed.value : 0))
const difference = computed(() =>
  props.tray.difference_g?.value == null
    ? null
    : withUncertainty(
        props.tray.difference_g.value * mass.value.factor,
        (props.tray.difference_g.expanded_uncertainty ?? 0) * mass.value.factor,
      ),
)
/** Hoop stress at 1 MPa inside. */
const stress = computed(() => {
  const mpa = props.strength.hoop_stress_mpa
  if (mpa === null) return null
  return props.family === 'metric'
    ? { inside: '1 MPa', wall: `${significant(mpa, 3)} MPa` }
    : { inside: `${significant(1e3 * pressure.value.factor, 3)} psi`, wall: `${significant(mpa * 1e3 * pressure.value.factor, 3)} psi` }
})
const yields = computed(() => props.strength.yield_pressure_mpa?.map((mpa) => significant(mpa * 1e3 * pressure.value.factor, 3)))
</script>

<template>
  <section class="panel" aria-label="Parts tray">
    <h3>Parts tray</h3>
    <svg v-if="bars.length" viewBox="0 0 350 34" class="tray" role="img" :aria-label="`Masses to scale. ${tray.words}.`">
      <g v-for="bar in bars" :key="bar.part" @click="$emit('pick', `${bar.part}.mass`)">
        <rect class="part" :x="bar.x" y="2" :width="bar.width" height="30" :fill-opacity="bar.shade" />
        <text v-if="bar.width > 46" :x="bar.x + bar.width / 2" y="21">{{ parts[bar.part]?.toLowerCase() }}</text>
        <title>{{ parts[bar.part] }}: {{ significant(bar.mass_g! * mass.factor, 3) }} {{ mass.symbol }}</title>
      </g>
      <rect v-if="rest > 0" class="rest" :x="350 * (weighed / span)" y="2" :width="(350 * rest) / span" height="30" />
      <path v-if="rest < 0" class="over" :d="`M${350 * ((tray.whole_g ?? 0) / span)} 0V34`" />
    </svg>
    <p class="words sentence small" :class="{ 'said-wrong': tray.closes === false }">
      {{ tray.words }}<template v-if="difference"
        >: whole less parts {{ difference.value
        }}<template v-if="difference.uncertainty"> ± {{ difference.uncertainty }}</template> {{ mass.symbol }}</template
      >.
    </p>
    <p class="fine sentence">
      <template v-for="(part, i) in tray.parts.filter((part) => part.mass_g === null)" :key="part.part"
        ><template v-if="i">, </template
        ><button type="button" class="link" tabindex="-1" @click="$emit('pick', `${part.part}.mass`)">
          {{ parts[part.part]?.toLowerCase() }}</button
        >&nbsp;{{ part.state ? term('state', part.state) : 'not weighed' }}</template
      >
    </p>
    <template v-if="yields || strength.shell_mass_g">
      <h3>Can, as a comparison only</h3>
      <p v-if="strength.shell_ratio && strength.shell_mass_g" class="fine sentence">
        A steel shell of this wall would weigh {{ significant(strength.shell_mass_g * mass.factor, 3) }} {{ mass.symbol }}; the can
        weighs {{ significant(strength.shell_ratio, 2) }} times that.
      </p>
      <p v-if="yields" class="fine sentence">
        The plain wall of drawn steel yields between {{ yields[0] }} and {{ yields[1] }} {{ pressure.symbol }}; seam or plate
        usually fail first, so this ranks cans and rates none.
      </p>
      <p v-if="stress" class="fine sentence">With {{ stress.inside }} inside, the hoop stress in it is {{ stress.wall }}.</p>
      <p v-if="strength.thread_engagement_mm" class="fine sentence">
        Thread engagement {{ significant(strength.thread_engagement_mm * length.factor, 3) }} {{ length.symbol }}.
      </p>
    </template>
  </section>
</template>

<style scoped>
.tray {
  display: block;
  width: 100%;
}
.part {
  fill: var(--slate);
  stroke: var(--ink);
  stroke-width: 0.8;
  cursor: pointer;
}
.rest {
  fill: none;
  stroke: var(--rust);
  stroke-dasharray: 4 3;
}
.over {
  stroke: var(--rust);
  stroke-width: 2;
}
text {
  font-family: var(--body);
  font-size: 11.2px;
  fill: var(--ink);
  text-anchor: middle;
  pointer-events: none;
}
.words {
  margin: 0.3rem 0 0.1rem;
}
</style>
