<script setup lang="ts">
/** The pleat pack end-on, and the loss of the element against its number of pleats. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { significant } from '@/shared/numbers'
import LineChart from '@/shared/LineChart.vue'
import { linear } from '@/shared/charts'
import ServedDrawing from './ServedDrawing.vue'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{
  pack: Schemas['DrawnPackOut']
  drawing: Schemas['DrawnFilterOut']
  curve: Schemas['PleatCountCurveOut'] | null
  lit: string
  family: UnitFamily
}>()
defineEmits<{ pick: [key: string] }>()

const area = computed(() => shownUnit('mm2', props.family))

const chart = computed(() => {
  const curve = props.curve
  if (!curve) return null
  const percent = (values: readonly number[]) => values.map((value) => (value <= high ? 100 * value : null))
  const whole = curve.counts.map((_, i) => curve.media[i]! + curve.channels[i]!)
  const high = Math.min(3, Math.max(...whole))
  return {
    x: { ...linear(0, curve.counts.at(-1)!, 'pleats · loss, % of this filter · dashed: media alone', { count: 7 }), name: 'pleats' },
    y: linear(0, 100 * high, '', { count: 4 }),
    lines: [
      { key: 'media', name: 'media', xs: curve.counts, ys: percent(curve.media), ink: 'var(--amber-ink)', dash: '5 3', width: 1.3 },
      { key: 'total', name: 'element', xs: curve.counts, ys: percent(whole), ink: 'var(--amber-ink)', width: 2 },
    ],
    points: [
      { key: 'best', x: curve.optimum, y: 100 * curve.least_loss, isOpen: true },
      { key: 'here', x: curve.count, y: 100, radius: 4.5 },
    ],
    words:
      curve.optimum === Math.round(curve.count)
        ? `${curve.optimum} pleats are the best for this media in this can.`
        : `The least loss would be with ${curve.optimum} pleats: ${significant(100 * curve.least_loss, 3)} % of this filter's with ${Math.round(curve.count)}.`,
  }
})
</script>

<template>
  <section class="panel" aria-label="Pleat pack">
    <h3>Pleat pack, end-on</h3>
    <ServedDrawing :drawing="drawing" :lit="lit" :family="family" class="pack" @pick="$emit('pick', $event)" />
    <p class="fine" :class="{ 'said-wrong': drawing.problems.length }">{{ drawing.problems[0] ?? drawing.note }}</p>
    <p v-if="pack.tube_open_area_mm2" class="fine">
      The centre tube is open over {{ significant(pack.tube_open_area_mm2 * area.factor, 3) }} {{ area.symbol }}.
    </p>
    <template v-if="chart && curve">
      <h3>Loss against the number of pleats</h3>
      <LineChart :x="chart.x" :y="chart.y" :lines="chart.lines" :points="chart.points" :words="`Viscous loss of the element against its pleats. ${chart.words}`" />
      <p class="fine">{{ chart.words }} <span class="key here-key">●</span> this filter <span class="key">○</span> the best</p>
    </template>
    <p v-else class="soft fine">The loss against the number of pleats needs diameters, pleat count, thickness and media family.</p>
  </section>
</template>

<style scoped>
.pack {
  height: 17rem;
}
.key {
  color: var(--hand);
}
</style>
