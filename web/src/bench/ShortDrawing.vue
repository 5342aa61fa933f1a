<script setup lang="ts">
/** The picture in which the field in hand is drawn: plate, valve, pleat pack, strip, or the section of the whole filter. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { UnitFamily } from '@/catalogue/units'
import PackPanel from '@/figures/PackPanel.vue'
import ServedDrawing from '@/figures/ServedDrawing.vue'
import SectionDrawing from '@/figures/SectionDrawing.vue'
import StripPanel from '@/figures/StripPanel.vue'
import ValvePanel from '@/figures/ValvePanel.vue'
import type { Sheet } from '@/sample/useSheet'

const props = defineProps<{ sheet: Sheet; figures: Schemas['FiguresOut']; lit: string; family: UnitFamily }>()
defineEmits<{ pick: [key: string] }>()

const picture = computed(() => {
  if (props.lit.startsWith('holes.')) return 'plate'
  if (props.lit.startsWith('bypass.')) return 'valve'
  return props.sheet.parts.flatMap((part) => part.fields).find((item) => item.key === props.lit)?.drawing ?? 'section'
})
const place = computed(() => props.sheet.parts.flatMap((part) => part.observations).find((item) => item.key === 'bypass.location')?.value ?? null)
</script>

<template>
  <ServedDrawing v-if="picture === 'plate'" :drawing="sheet.plate.drawing" :lit="lit" :family="family" class="plate" @pick="$emit('pick', $event)" />
  <ValvePanel v-else-if="picture === 'valve'" :valve="figures.valve" :family="family" :place="place" :lit="lit" @pick="$emit('pick', $event)" />
  <PackPanel v-else-if="picture === 'pack'" :pack="figures.pack" :drawing="figures.pack_drawing" :curve="figures.pleat_curve" :lit="lit" :family="family" @pick="$emit('pick', $event)" />
  <StripPanel v-else-if="picture === 'strip'" :strip="figures.strip" :drawing="figures.strip_drawing" :lit="lit" :family="family" @pick="$emit('pick', $event)" />
  <SectionDrawing v-else :section="figures.section" :lit="lit" :family="family" @pick="$emit('pick', $event)" />
</template>

<style scoped>
.plate {
  height: 20rem;
}
</style>
