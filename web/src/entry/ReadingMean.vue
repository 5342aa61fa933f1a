<script setup lang="ts">
/** The mean of a field with its uncertainty and where it comes from; while something is typed, the mean it would make. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { term } from '@/catalogue/catalogue'
import type { UnitFamily } from '@/catalogue/units'
import { withUncertainty } from '@/shared/numbers'

const props = defineProps<{
  field: Schemas['FieldOut']
  preview: Schemas['EstimateOut'] | null
  family: UnitFamily
  unit: string
}>()

const mean = computed(() => {
  const estimate = props.preview ?? props.field.estimate
  if (!estimate) return null
  const metric = props.family === 'metric'
  const shown = withUncertainty(
    metric ? estimate.metric_value : estimate.inch_value,
    metric ? estimate.metric_uncertainty : estimate.inch_uncertainty,
  )
  const expanded = withUncertainty(0, metric ? estimate.metric_expanded : estimate.inch_expanded).uncertainty
  return { ...shown, expanded, provenance: estimate.provenance }
})
</script>

<template>
  <p
    class="mean number flush"
    :class="{ preview }"
    :title="mean?.expanded ? `mean ± standard uncertainty; expanded, 95 %: ± ${mean.expanded} ${unit}` : 'mean'"
  >
    <template v-if="mean">
      <span class="line">
        <strong>{{ mean.value }}</strong>
        <span v-if="mean.uncertainty" class="soft"> ± {{ mean.uncertainty }}</span>
        <span class="soft">&nbsp;{{ unit }}</span>
      </span>
      <span v-if="mean.expanded || mean.provenance !== 'measured'" class="line fine soft">
        <template v-if="mean.provenance !== 'measured'">{{ term('provenance', mean.provenance) }}</template
        ><span v-if="mean.expanded" class="expanded"><template v-if="mean.provenance !== 'measured'">, </template>U {{ mean.expanded }}</span>
      </span>
    </template>
    <span v-else-if="field.bound" class="none small" title="only a bound was read">{{ family === 'metric' ? field.bound.metric : field.bound.inch }}</span>
    <span v-else-if="field.state" class="none state small">{{ term('state', field.state) }}</span>
    <span v-else class="soft none small">not measured</span>
  </p>
</template>

<style scoped>
.line {
  display: block;
}
.fine {
  line-height: 1.1;
}
.preview {
  color: var(--hand);
}
.state {
  color: var(--ink);
}
.none {
  font-family: var(--body);
}
</style>
