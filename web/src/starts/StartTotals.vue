<script setup lang="ts">
/** Totals of a start, filter by filter. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { needsWords } from '@/catalogue/inputs'
import { minutesOrSeconds, significant } from '@/shared/numbers'
import { sampleColour } from '@/shared/sampleColours'
import { onsetText } from '@/shared/degrees'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{ starts: readonly Schemas['StartOut'][]; inHand: number; family: UnitFamily; titles: ReadonlyMap<string, string> }>()
const kpa = computed(() => shownUnit('kpa', props.family))
const litres = computed(() => shownUnit('l', props.family))
const grams = computed(() => shownUnit('g', props.family))
const ended = computed(() => props.starts.flatMap((start, at) => (start.end_of_service && start.totals ? [{ start, at, end: start.end_of_service }] : [])))
const seconds = (value: number | null) => (value === null ? 'never' : value.toFixed(2))
</script>

<template>
  <table class="totals small wide">
    <thead>
      <tr>
        <th>filter</th>
        <th class="number">bypass open</th>
        <th class="number">unfiltered, {{ litres.symbol }}</th>
        <th class="number">through it in all, {{ litres.symbol }}</th>
        <th class="number">galleries full, s</th>
        <th class="number">pressure after, s</th>
        <th class="number">lowest gallery, {{ kpa.symbol }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(item, i) in starts" :key="item.sample_id" :class="{ hand: item.sample_id === inHand }" :data-start="item.label">
        <td><i :style="{ background: sampleColour(i) }" /> {{ i + 1 }} {{ item.label }}</td>
        <td v-if="!item.totals" colspan="6" :class="item.missing.length ? 'soft' : 'said-wrong'">{{ needsWords(item.problem ?? '', item.missing, titles) }}</td>
        <template v-else>
          <td class="number" data-total="bypass">{{ minutesOrSeconds(item.totals.bypass_minutes) }}</td>
          <td class="number">{{ significant(item.totals.unfiltered_l * litres.factor, 2) }}</td>
          <td class="number">{{ significant(item.totals.volume_l * litres.factor, 3) }}</td>
          <td class="number">{{ seconds(item.totals.filled_after_s) }}</td>
          <td class="number">{{ seconds(item.totals.pressure_after_s) }}</td>
          <td class="number">
            {{ item.totals.lowest_gallery_kpa === null ? 'none' : significant(item.totals.lowest_gallery_kpa * kpa.factor, 3) }}
            <span v-if="item.totals.dry_s > 0" class="said-wrong" :title="`${item.totals.dry_s.toFixed(1)} s in which the oil does not pump`">!</span>
          </td>
        </template>
      </tr>
    </tbody>
  </table>
  <table v-if="ended.length" class="totals ended small wide" aria-label="New and at the end of service">
    <thead>
      <tr>
        <th>new → after service</th>
        <th class="number">service, h</th>
        <th class="number">dirt, {{ grams.symbol }}</th>
        <th class="number">media resists</th>
        <th class="number">onset, {{ shownUnit('c', family).symbol }}</th>
        <th class="number">bypass open</th>
        <th class="number">unfiltered, {{ litres.symbol }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="item in ended" :key="item.start.sample_id" :class="{ hand: item.start.sample_id === inHand }" :data-ended="item.start.label">
        <td><i :style="{ background: sampleColour(item.at) }" /> {{ item.at + 1 }} {{ item.start.label }}</td>
        <td class="number">{{ significant(item.end.hours, 3) }}</td>
        <td class="number">{{ significant(item.end.captured_g * grams.factor, 2) }}</td>
        <td class="number">{{ item.end.is_least ? '≥ ' : '' }}× {{ significant(item.end.loading, 2) }}</td>
        <td class="number">{{ onsetText(item.end.onset_new_c, family, false) }} → {{ onsetText(item.end.onset_c, family, false) }}</td>
        <td class="number">{{ minutesOrSeconds(item.start.totals!.bypass_minutes) }} → {{ minutesOrSeconds(item.end.totals.bypass_minutes) }}</td>
        <td class="number">{{ significant(item.start.totals!.unfiltered_l * litres.factor, 2) }} → {{ significant(item.end.totals.unfiltered_l * litres.factor, 2) }}</td>
      </tr>
    </tbody>
  </table>
  <p v-else-if="starts.some((start) => start.lives.length)" class="soft dry small">State the hours of a change interval in a use: the same start at the end of service then stands here, beside that of the new filter.</p>
  <p v-if="starts.some((start) => (start.totals?.dry_s ?? 0) > 0)" class="said-wrong dry small" data-start="dry">
    The oil does not pump for {{ Math.max(...starts.map((start) => start.totals?.dry_s ?? 0)).toFixed(1) }} s after this start: it is too cold for this oil.
  </p>
</template>

<style scoped>
th {
  color: var(--ink-soft);
  font-size: var(--fine);
  border-bottom: 1px solid var(--line-strong);
}
td {
  padding: 0.14rem 0.3rem 0.14rem 0;
  border-bottom: 1px solid var(--line);
}
i {
  display: inline-block;
  width: 0.8rem;
  height: 0.8rem;
  border-radius: 2px;
  vertical-align: -1px;
}
.hand {
  background: var(--hand-wash);
}
.ended {
  margin-top: 0.4rem;
}
</style>
