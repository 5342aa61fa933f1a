<script setup lang="ts">
/** Where the oil goes at the crosshair, drawn in the section of the filter: media, bypass, defects. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { significant, toPercent } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'
import SectionDrawing from '@/figures/SectionDrawing.vue'

const props = defineProps<{
  section: Schemas['DrawnFilterOut'] | null
  flow: number | null
  bypass: number
  defects: number
  family: UnitFamily
}>()
const unit = computed(() => shownUnit('l_min', props.family))
const media = computed(() => Math.max(0, 1 - props.bypass - props.defects))
const rows = computed(() => [
  { name: 'media', title: 'through the media', share: media.value },
  { name: 'bypass', title: 'through the bypass', share: props.bypass },
  { name: 'defects', title: 'through defects', share: props.defects },
])
</script>

<template>
  <section class="panel" aria-label="Flow split">
    <h2>Where the oil goes</h2>
    <p v-if="flow === null" class="soft fine">The oil is below the pumpability limit here.</p>
    <template v-else>
      <SectionDrawing v-if="section" :section="section" lit="" :family="family" :flow="{ media, bypass, defects }" />
      <table>
        <tbody>
          <tr v-for="row in rows" :key="row.name" :data-flow="row.name">
            <td><span class="key" :class="row.name" /> {{ row.title }}</td>
            <td class="number">{{ significant(row.share * flow * unit.factor, 3) }} {{ unit.symbol }}</td>
            <td class="number">{{ toPercent(row.share) }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
.key {
  display: inline-block;
  width: 1.4rem;
  height: 0.5rem;
  margin-right: 0.3rem;
  background: var(--amber);
}
.key.bypass {
  background: var(--rust);
}
.key.defects {
  background: repeating-linear-gradient(90deg, var(--rust) 0 3px, transparent 3px 6px);
}
</style>
