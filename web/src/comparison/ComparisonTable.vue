<script setup lang="ts">
/** The two questions for every sample: which part restricts here, and when does this engine run on unfiltered oil.
 *  A plain table: a filter that lacks inputs says so across its columns, and the order is that of the samples. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { needsWords } from '@/catalogue/inputs'
import { term } from '@/catalogue/catalogue'
import { minutesOrSeconds, significant } from '@/shared/numbers'
import { sampleColour } from '@/shared/sampleColours'
import { shownUnit, type UnitFamily } from '@/catalogue/units'
import { degrees, onsetText } from '@/shared/degrees'

const props = defineProps<{
  comparison: Schemas['ComparisonOut']
  bands: Readonly<Record<string, Schemas['SliceBandOut']>>
  /** Behaviour of each filter, independent of its use; null if scenarios are compared. */
  behaviour: readonly Schemas['BehaviourOut'][] | null
  inHand: number
  shown: readonly string[]
  /** Heading of the first column. */
  who: string
  titles: ReadonlyMap<string, string>
  family: UnitFamily
}>()
defineEmits<{ pick: [sampleId: number]; toggle: [key: string] }>()

const kpa = computed(() => shownUnit('kpa', props.family))
const litres = computed(() => shownUnit('l', props.family))

function interval(band: Schemas['SliceBandOut'] | undefined): string {
  if (!band) return ''
  if (band.shut_percent > 97.5) return 'shut in nearly all draws'
  return `${onsetText(band.onset_low_c, props.family, false)} … ${onsetText(band.onset_high_c, props.family)}`
}

/** The greatest differential pressure of the element over the whole map, and with the valve stuck shut. */
function pressed(sampleId: number) {
  const known = props.behaviour?.find((item) => item.sample_id === sampleId)
  const shown = (value: number | null | undefined) => (value == null ? '' : significant(value * kpa.value.factor, 3))
  return { most: shown(known?.element_greatest_kpa), stuck: shown(known?.element_greatest_stuck_kpa) }
}

const rows = computed(() =>
  props.comparison.filters.map((side, i) => {
    const { at_point: at } = side
    const parts = at?.parts ?? []
    const whole = parts.slice(0, 3)
    const [largest] = whole
    return {
      ...side,
      at,
      number: i + 1,
      colour: sampleColour(i),
      pressed: pressed(side.sample_id),
      restricts: largest ? `${term('loss_part', largest.name)} ${Math.round(largest.share_percent)} %` : 'below the pumpability limit',
      next: whole.slice(1).map((part) => `${term('loss_part', part.name).toLowerCase()} ${Math.round(part.share_percent)} %`).join(', '),
      bars: parts.map((part) => ({ name: part.name, share: part.share_percent })),
      onset: at?.has_valve ? onsetText(at.onset_c, props.family) : 'no bypass',
      filling: at?.has_valve ? onsetText(at.filling_onset_c, props.family) : '',
      interval: at?.has_valve ? interval(props.bands[side.key]) : '',
    }
  }),
)
</script>

<template>
  <table class="comparison small wide">
    <thead>
      <tr>
        <th>{{ who }}</th>
        <th>restricts at {{ degrees(comparison.temperature_c, family) }}, {{ comparison.speed_rpm }} rpm, % of the filter's loss</th>
        <th class="number">filter Δp, {{ kpa.symbol }}</th>
        <th v-if="behaviour" class="number">element at most (valve stuck shut), {{ kpa.symbol }}</th>
        <th class="number">unfiltered here,&nbsp;%</th>
        <th>unfiltered below (95&nbsp;%)</th>
        <th>while filling</th>
        <th class="number">open after a start at {{ degrees(comparison.start_c, family) }}</th>
        <th class="number">unfiltered, {{ litres.symbol }}</th>
        <th class="number">pressure after, s</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.key" :class="{ hand: who === 'filter' && row.sample_id === inHand }" :data-side="row.label">
        <td class="who">
          <input type="checkbox" :checked="shown.includes(row.key)" :aria-label="`${row.label} in the slice`" @change="$emit('toggle', row.key)" />
          <button type="button" class="link strong" :style="{ '--of': row.colour }" @click="$emit('pick', row.sample_id)"><i /> {{ row.number }} {{ row.label }}</button>
        </td>
        <td v-if="row.problem" :colspan="behaviour ? 9 : 8" :class="row.missing.length ? 'soft' : 'said-wrong'">{{ needsWords(row.problem, row.missing, titles) }}</td>
        <template v-else>
          <td class="part" data-answer="restricts">
            <strong>{{ row.restricts }}</strong> <span class="soft">{{ row.next }}</span>
            <span class="bar" aria-hidden="true"><i v-for="bar in row.bars" :key="bar.name" :class="bar.name" :style="{ width: `${bar.share}%` }" /></span>
          </td>
          <td class="number">{{ row.at?.filter_pressure_kpa == null ? 'none' : significant(row.at.filter_pressure_kpa * kpa.factor, 3) }}</td>
          <td v-if="behaviour" class="number" data-answer="greatest">
            {{ row.pressed.most }} <span v-if="row.pressed.stuck" class="soft">({{ row.pressed.stuck }})</span>
          </td>
          <td class="number" data-answer="unfiltered" :class="{ open: (row.at?.unfiltered_percent ?? 0) > 0 }">{{ row.at?.unfiltered_percent == null ? 'none' : significant(row.at.unfiltered_percent, 2) }}</td>
          <td data-answer="onset"><strong>{{ row.onset }}</strong> <span class="soft">{{ row.interval }}</span></td>
          <td>{{ row.filling }}</td>
          <template v-if="row.start">
            <td class="number" data-answer="start">{{ minutesOrSeconds(row.start.bypass_minutes) }}</td>
            <td class="number">{{ significant(row.start.unfiltered_l * litres.factor, 2) }}</td>
            <td class="number">{{ row.start.pressure_after_s === null ? 'never' : row.start.pressure_after_s.toFixed(0) }}</td>
          </template>
        </template>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
th {
  color: var(--ink-soft);
  vertical-align: bottom;
  border-bottom: 1px solid var(--line-strong);
  padding: 0 0.5rem 0.2rem 0;
  font-size: var(--fine);
  line-height: 1.2;
}
th.number {
  white-space: normal;
}
td {
  padding: 0.22rem 0.5rem 0.22rem 0;
  border-bottom: 1px solid var(--line);
}
.hand {
  background: var(--hand-wash);
}
.who {
  white-space: nowrap;
}
.link i {
  display: inline-block;
  width: 0.8rem;
  height: 0.8rem;
  background: var(--of);
  border-radius: 2px;
  vertical-align: -1px;
}
[data-answer='onset'] {
  white-space: nowrap;
}
.part {
  min-width: 13rem;
}
.bar {
  display: flex;
  height: 5px;
  margin-top: 2px;
  background: var(--line);
}
.bar i {
  background: var(--slate);
  border-right: 1px solid var(--ground);
}
.bar .media {
  background: var(--amber);
}
.bar .pleat_channels {
  background: color-mix(in srgb, var(--amber) 55%, var(--ground));
}
.open {
  color: var(--rust);
  font-weight: 700;
}
input[type='checkbox'] {
  width: 1.5rem;
  height: 1.5rem;
  margin: 0 0.4rem 0 0;
  vertical-align: middle;
  accent-color: var(--hand);
}
</style>
