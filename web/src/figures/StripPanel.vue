<script setup lang="ts">
/** From the gross media area to the effective one: every deduction a line, and hatched on the strip, to scale. */
import { computed } from 'vue'
import { term } from '@/catalogue/catalogue'
import type { Schemas } from '@/api/client'
import { significant } from '@/shared/numbers'
import ServedDrawing from './ServedDrawing.vue'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{ strip: Schemas['StripAreasOut'] | null; drawing: Schemas['DrawnFilterOut'] | null; lit: string; family: UnitFamily }>()
defineEmits<{ pick: [key: string] }>()

const area = computed(() => shownUnit('cm2', props.family))
const length = computed(() => shownUnit('mm', props.family))

function square(cm2: number): string {
  return significant(cm2 * area.value.factor, cm2 * area.value.factor >= 1000 ? 4 : 3)
}
function long(mm: number): string {
  return `${significant(mm * length.value.factor, 4)} ${length.value.symbol}`
}
const checks = computed(() => {
  const strip = props.strip
  if (!strip) return []
  const sentences = [`${long(strip.length_mm)} long, ${long(strip.width_mm)} wide: a long narrow strip need not be a large one.`]
  const off = strip.length_off_percent
  if (off !== null && strip.pleats_length_mm)
    sentences.push(`2·pleats·depth makes ${long(strip.pleats_length_mm)}: the strip is ${significant(Math.abs(off), 2)} % ${off < 0 ? 'shorter' : 'longer'}.`)
  if (strip.grammage_g_m2) sentences.push(`Grammage ${significant(strip.grammage_g_m2, 3)} g/m², dry mass over gross area.`)
  if (strip.pulled_length_mm && !strip.is_forecast)
    sentences.push(`Pulled flat it gives ${long(strip.pulled_length_mm - strip.length_mm)} more; the area is computed from the relaxed length.`)
  return sentences
})
</script>

<template>
  <section class="panel" aria-label="Media strip">
    <h3>{{ strip?.is_forecast ? 'Media strip, forecast from the pleats' : 'Media strip, to scale' }}</h3>
    <p v-if="!strip" class="soft fine">
      Strip length and width are not measured yet; pleats, diameters and height of the element make a forecast.
    </p>
    <template v-else>
      <ServedDrawing v-if="drawing" :drawing="drawing" :lit="lit" :family="family" class="strip" @pick="$emit('pick', $event)" />
      <table>
        <tbody>
          <tr>
            <td>gross, one face</td>
            <td class="number">{{ square(strip.gross_cm2) }}</td>
          </tr>
          <tr v-for="deduction in strip.deductions" :key="deduction.key" :class="{ lit: lit === deduction.key }">
            <td>
              <button type="button" class="link" tabindex="-1" @click="$emit('pick', deduction.key)">{{ term('media_deduction', deduction.key) }}</button>
            </td>
            <td class="number">{{ deduction.measured ? `− ${square(deduction.area_cm2)}` : 'not measured' }}</td>
          </tr>
          <tr class="sum">
            <td>{{ strip.is_forecast ? 'forecast' : 'effective' }}, {{ area.symbol }}</td>
            <td class="number">{{ square(strip.effective_cm2) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-for="words in checks" :key="words" class="fine">{{ words }}</p>
    </template>
  </section>
</template>

<style scoped>
.strip :deep(svg) {
  height: auto;
  max-height: 18rem;
}
table {
  margin-top: 0.4rem;
}
.sum td {
  font-weight: 650;
}
tr.lit {
  background: var(--hand-wash);
}
</style>
