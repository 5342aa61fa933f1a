<script setup lang="ts">
/** The bypass valve beside its readings: drawn at three lifts, every way to its opening pressure, its curves. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { intervalAbout, withUncertainty } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'
import { term } from '@/catalogue/catalogue'
import { agreementLines } from './agreement'
import ValveChart from './ValveChart.vue'
import ServedDrawing from './ServedDrawing.vue'

const props = defineProps<{ valve: Schemas['ValveOut']; family: UnitFamily; place: string | null; lit: string }>()
defineEmits<{ pick: [key: string] }>()

const unit = computed(() => shownUnit('kpa', props.family))
function shown(kpa: number, expanded: number | null = null) {
  return withUncertainty(kpa * unit.value.factor, expanded === null ? null : expanded * unit.value.factor)
}
const rows = computed(() =>
  props.valve.comparison.evidence.map((item) => {
    const factor = unit.value.factor
    const { value: kpa, low, high, expanded_uncertainty: expanded } = item.opening_kpa
    const about = kpa === null || low === null || high === null ? null : intervalAbout(kpa * factor, low * factor, high * factor)
    const { value, uncertainty } = shown(kpa ?? 0, expanded)
    return { ...item, name: term('opening_way', item.basis), value: about?.value ?? value, interval: about?.interval ?? (uncertainty ? `± ${uncertainty}` : 'unknown') }
  }),
)
const band = computed(() => {
  const stated = props.valve.comparison.stated_band
  if (!stated) return []
  const range = `${shown(stated.low_kpa).value} to ${shown(stated.high_kpa).value} ${unit.value.symbol}`
  const full = stated.full_open_at_high
  return [
    `Stated ${range} read as start to full open: it ${stated.opens_at_low.agrees ? 'opens' : 'does not open'} at the lower figure${
      full ? ` and is ${full.agrees ? 'full open' : 'not full open'} at the upper` : ''
    }.`,
    `Read as a tolerance: the opening pressure lies ${stated.within_tolerance ? 'inside' : 'outside'}.`,
  ]
})
const springWords = computed(() => {
  if (props.valve.comparison.coil_bound === null) return ''
  return props.valve.comparison.coil_bound ? 'The spring is coil-bound before full lift.' : 'The spring is not coil-bound at full lift.'
})
</script>

<template>
  <section class="panel" aria-label="Bypass valve">
    <h3>Bypass valve</h3>
    <p v-if="place === 'there is none'" class="soft">There is none: all oil goes through the media, or none at all.</p>
    <template v-else>
      <ServedDrawing :drawing="valve.drawing" :family="family" :lit="lit" class="valve" @pick="$emit('pick', $event)" />
      <p v-if="valve.drawing.note" class="fine">{{ valve.drawing.note }}</p>
      <p v-if="valve.senses" class="fine">It senses {{ valve.senses }}.</p>
      <table v-if="rows.length">
        <thead>
          <tr>
            <th>opening pressure from</th>
            <th class="number">{{ unit.symbol }}</th>
            <th class="number">95 %</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.basis" :class="{ used: row.is_used }">
            <td>{{ row.name }}<span v-if="row.is_used" class="soft"> used</span></td>
            <td class="number">{{ row.value }}</td>
            <td class="number">{{ row.interval }}</td>
          </tr>
          <tr v-if="valve.comparison.closing_kpa?.value != null">
            <td>closes again, falling</td>
            <td class="number">{{ shown(valve.comparison.closing_kpa.value).value }}</td>
            <td />
          </tr>
        </tbody>
      </table>
      <p v-else class="soft">nothing yet says at what pressure it opens</p>
      <ul class="says fine">
        <li v-for="item in agreementLines(valve.comparison.agreements)" :key="item.words" :class="{ 'said-wrong': !item.agrees }">
          {{ item.words }}
        </li>
        <li v-for="words in band" :key="words">{{ words }}</li>
        <li v-if="valve.lift_is_assumed && valve.lift_limit_mm !== null">The lift limit is assumed: a quarter of the seat.</li>
        <li v-if="springWords" :class="{ 'said-wrong': valve.comparison.coil_bound }">{{ springWords }}</li>
      </ul>
      <ValveChart v-if="valve.curves.length" :valve="valve" :family="family" />
    </template>
  </section>
</template>

<style scoped>
.valve :deep(svg) {
  height: auto;
  max-height: 15rem;
}
.says {
  margin: 0.2rem 0;
}
.says li::first-letter {
  text-transform: uppercase;
}
</style>
