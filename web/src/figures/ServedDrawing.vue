<script setup lang="ts">
/** A drawing as the core makes it, also for paper: here its parts lead to their readings, and the reading in hand lights its part and its size. */
import { onMounted, useTemplateRef, watch } from 'vue'
import type { Schemas } from '@/api/client'
import type { UnitFamily } from '@/catalogue/units'

const props = defineProps<{
  drawing: Schemas['DrawnFilterOut']
  lit?: string
  family: UnitFamily
  /** How wide each way of the oil is drawn, in fine lines. */
  ways?: Readonly<Record<string, number>>
}>()
const emit = defineEmits<{ pick: [key: string] }>()
const host = useTemplateRef<HTMLElement>('host')

function paint() {
  const lit = props.lit ?? ''
  const names = new Set([lit, /^holes\.\w+\[\d+\]/.exec(lit)?.[0] ?? lit])
  for (const part of host.value!.querySelectorAll<SVGElement>('[data-lit]')) part.classList.toggle('lit', part.dataset.lit!.split(' ').some((name) => names.has(name)))
  const line = Number(host.value!.querySelector<SVGElement>('svg')?.dataset.line)
  for (const way of host.value!.querySelectorAll<SVGElement>('[data-way]')) {
    const width = props.ways?.[way.dataset.way!]
    way.style.display = (props.ways ? width : way.dataset.way !== 'defects') ? '' : 'none'
    if (width) way.style.setProperty('--way', `${width * line}`)
  }
}
onMounted(paint)
watch(() => [props.drawing.svg, props.lit, props.ways], paint, { flush: 'post' })

function pick(event: Event) {
  const key = (event.target as Element).closest<SVGElement>('[data-pick]')?.dataset.pick
  if (key) emit('pick', key)
}
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html, vuejs-accessibility/click-events-have-key-events, vuejs-accessibility/no-static-element-interactions -->
  <div ref="host" class="served-drawing" :class="[family, { ways }]" @click="pick" v-html="drawing.svg" />
</template>

<style scoped>
.served-drawing :deep(svg) {
  display: block;
  width: 100%;
  height: 100%;
}
.served-drawing :deep([data-pick]) {
  cursor: pointer;
}
.served-drawing :deep([data-way]) {
  pointer-events: none;
}
.ways :deep([data-way] [stroke]) {
  stroke-width: var(--way);
}
.served-drawing :deep([data-size]:not(.lit)),
.served-drawing:has([data-size].lit) :deep([data-scale]),
.metric :deep([data-family='inch']),
.inch :deep([data-family='metric']) {
  display: none;
}
.served-drawing :deep([data-size]) {
  fill: var(--hand);
  stroke: var(--hand);
  font-weight: 650;
}
.served-drawing :deep([data-size] path) {
  stroke-width: 1.1px;
  vector-effect: non-scaling-stroke;
}
.served-drawing :deep(.lit:not([data-size]) [stroke]) {
  stroke: var(--hand);
}
.served-drawing :deep(.lit:not([data-size]) [fill]:not([fill='none'])) {
  fill: var(--hand-wash);
}
.served-drawing :deep(text) {
  font-family: var(--body);
  paint-order: stroke;
  stroke: var(--ground);
  stroke-width: 0.9px;
}
</style>
