<script setup lang="ts">
/** The check at the hot point: who takes the pump's flow, and how far the calibration is off with this filter in it. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { inputName } from '@/catalogue/inputs'
import { significant } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{ point: Schemas['HotPointOut'] | null; problem: string | null; missing: readonly string[]; family: UnitFamily }>()
const flow = computed(() => shownUnit('l_min', props.family))
const kpa = computed(() => shownUnit('kpa', props.family))
const mm = computed(() => shownUnit('mm', props.family))
const shares = computed(() => {
  const point = props.point
  if (!point) return []
  return [
    { name: 'bearings', value: point.bearings_l_min },
    { name: 'jets', value: point.jets_l_min },
    { name: 'slip', value: point.slip_l_min },
  ]
    .filter((item) => item.value > 1e-9)
    .map((item) => ({ ...item, share: item.value / point.displaced_l_min }))
})
const NO_TITLES: ReadonlyMap<string, string> = new Map()
const USUAL_LEFTOVER = 5
const off = computed(() => Math.abs(props.point?.leftover_percent ?? 0) > USUAL_LEFTOVER)
</script>

<template>
  <section class="panel" aria-label="Check at the hot point">
    <h2>Check at the hot point</h2>
    <p v-if="problem" class="said-wrong" role="alert" data-hot="problem">{{ problem }}</p>
    <p v-else-if="!point" class="soft fine">Needs {{ missing.length ? missing.map((key) => inputName(key, NO_TITLES)).join(', ') : 'oil, pump, regulator and hot gallery' }}.</p>
    <template v-else>
      <div class="bar fine" role="img" :aria-label="shares.map((share) => `${share.name} ${significant(share.value * flow.factor, 3)} ${flow.symbol}`).join(', ')">
        <span v-for="share in shares" :key="share.name" :class="share.name" :style="{ width: `${100 * share.share}%` }">{{ share.share > 0.08 ? share.name : '' }}</span>
      </div>
      <p class="fine">
        The pump displaces {{ significant(point.displaced_l_min * flow.factor, 3) }} {{ flow.symbol }}:
        bearings {{ significant(point.bearings_l_min * flow.factor, 3) }}<template v-if="point.jets_l_min > 1e-9">, jets {{ significant(point.jets_l_min * flow.factor, 3) }} (nozzles {{ significant((point.jet_diameter_mm ?? 0) * mm.factor, 3) }} {{ mm.symbol }})</template>,
        slip {{ significant(point.slip_l_min * flow.factor, 3) }}.
      </p>
      <p class="fine" :class="{ 'said-wrong': off }" data-hot="leftover">
        <template v-if="point.computed_kpa !== null">
          With this filter the gallery comes out at {{ significant(point.computed_kpa * kpa.factor, 3) }} {{ kpa.symbol }} for
          {{ significant(point.stated_kpa * kpa.factor, 3) }} stated: {{ significant(point.leftover_percent!, 2) }} %.
          {{ off ? 'More than usual: look at cooler, head and regulator.' : 'A few per cent low is intended: slip is taken without the losses of filter and cooler.' }}
        </template>
        <template v-else>With this filter it cannot be computed yet: readings of it are missing.</template>
      </p>
      <p v-if="point.studs.length" class="fine" data-hot="studs">
        Stud at this flow:
        {{ point.studs.map((stud) => `${significant(stud.bore_mm * mm.factor, 3)} ${mm.symbol} costs ${significant(stud.differential_pressure_kpa * kpa.factor, 2)}`).join(', ') }} {{ kpa.symbol }}.
      </p>
    </template>
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  overflow: hidden;
  margin-top: 0.2rem;
}
.bar span {
  padding: 0.1rem 0.3rem;
  white-space: nowrap;
  overflow: hidden;
}
.bearings {
  background: var(--amber-wash);
}
.jets {
  background: var(--hand-wash);
}
.slip {
  background: var(--slate-wash);
}
</style>
