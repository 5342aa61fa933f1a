<script setup lang="ts">
/** The pleat pack end-on, and the loss of the element against its number of pleats. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { linePath, zeroBasedScale } from '@/shared/scales'
import { significant } from '@/shared/numbers'
import ChartFrame from '@/shared/ChartFrame.vue'
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

const [LEFT, RIGHT, TOP, BOTTOM] = [34, 346, 10, 118]
const chart = computed(() => {
  const curve = props.curve
  if (!curve) return null
  const high = Math.min(3, Math.max(...curve.counts.map((_, i) => curve.media[i]! + curve.channels[i]!)))
  const x = zeroBasedScale(curve.counts.at(-1)!, LEFT, RIGHT, 7)
  const y = zeroBasedScale(high, BOTTOM, TOP, 4)
  const shown = (values: readonly number[]) => {
    const inside = values.map((value, i) => ({ value, count: curve.counts[i]! })).filter(({ value }) => value <= high)
    return linePath(
      inside.map(({ count }) => x.at(count)),
      inside.map(({ value }) => y.at(value)),
    )
  }
  return {
    across: x.ticks.map((tick) => ({ at: x.at(tick), label: tick })),
    up: y.ticks.map((tick) => ({ at: y.at(tick), label: Math.round(100 * tick) })),
    total: shown(curve.counts.map((_, i) => curve.media[i]! + curve.channels[i]!)),
    media: shown(curve.media),
    here: { x: x.at(curve.count), y: y.at(1) },
    best: { x: x.at(curve.optimum), y: y.at(curve.least_loss) },
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
      <svg class="chart" viewBox="0 0 350 150" role="img" :aria-label="`Viscous loss of the element against its pleats. ${chart.words}`">
        <ChartFrame :left="LEFT" :right="RIGHT" :top="TOP" :bottom="BOTTOM" :across="chart.across" :up="chart.up" />
        <path class="media" :d="chart.media" />
        <path class="total" :d="chart.total" />
        <circle class="best" :cx="chart.best.x" :cy="chart.best.y" r="4" />
        <circle class="here" :cx="chart.here.x" :cy="chart.here.y" r="4.5" />
        <text class="middle" :x="(LEFT + RIGHT) / 2" y="145">pleats · loss, % of this filter · dashed: media alone</text>
      </svg>
      <p class="fine">{{ chart.words }} <span class="key here-key">●</span> this filter <span class="key">○</span> the best</p>
    </template>
    <p v-else class="soft fine">The loss against the number of pleats needs diameters, pleat count, thickness and media family.</p>
  </section>
</template>

<style scoped>
.pack {
  height: 17rem;
}
.total,
.media {
  fill: none;
  stroke: var(--amber);
  stroke-width: 2;
}
.media {
  stroke-width: 1.3;
  stroke-dasharray: 5 3;
}
.here {
  fill: var(--hand);
}
.best {
  fill: var(--paper);
  stroke: var(--hand);
  stroke-width: 1.6;
}
.key {
  color: var(--hand);
}
</style>
