<script setup lang="ts">
/** The engine's oil circuit with its numbers in place; choosing a part opens its fields. */
import { computed } from 'vue'
import { catalogue } from '@/catalogue/catalogue'

const props = defineProps<{ details: Readonly<Record<string, string>>; chosen: string }>()
const emit = defineEmits<{ choose: [name: string] }>()

/** Where each part is drawn: middle of its sign, and where its numbers are written. */
const AT: Record<string, { x: number; y: number; text: [number, number] }> = {
  pump: { x: 36, y: 140, text: [62, 136] },
  regulator: { x: 150, y: 104, text: [174, 100] },
  cooler: { x: 200, y: 46, text: [184, 4] },
  head: { x: 280, y: 46, text: [292, 4] },
  adapter: { x: 330, y: 46, text: [330, 80] },
  stud: { x: 396, y: 128, text: [434, 112] },
  gallery: { x: 552, y: 46, text: [552, 4] },
  jets: { x: 606, y: 112, text: [594, 156] },
}

const known = (key: string) => props.details[key] ?? ''
const parts = computed(() =>
  catalogue().circuit_parts.filter((part) => AT[part.name]).map((part) => ({
    ...part,
    ...AT[part.name]!,
    lines: part.in_drawing.map(known).filter(Boolean),
    given: part.details.some((key) => known(key)),
  })),
)
const sense = computed(() => known('engine.regulator_sense') || 'pump')
const gauge = computed(() => known('engine.gauge') || 'pump')
const TAPS: Record<string, [number, number]> = { pump: [90, 46], filter_inlet: [352, 46], gallery: [470, 46] }
const tap = computed(() => TAPS[gauge.value] ?? TAPS.pump!)
const middle = new Set(['cooler', 'head', 'gallery', 'adapter'])
const atEnd = new Set(['jets'])

function onKey(event: KeyboardEvent, name: string) {
  if (event.key !== 'Enter' && event.key !== ' ') return
  event.preventDefault()
  emit('choose', name)
}
const words = computed(
  () => `Oil circuit: ${parts.value.map((part) => `${part.title.toLowerCase()} ${part.lines.join(', ') || 'not stated'}`).join('; ')}; gauge at ${gauge.value.replace('_', ' ')}, regulator senses at ${sense.value}.`,
)
</script>

<template>
  <svg class="circuit" viewBox="0 -8 640 228" role="group" :aria-label="words" data-figure="circuit">
    <!-- sump and the way back -->
    <path class="sump" d="M14 184H626V214H14Z" />
    <text class="soft" x="320" y="204" text-anchor="middle">sump</text>
    <!-- pressure side -->
    <path class="pipe" d="M36 184V46H398" />
    <path class="pipe clean" d="M420 46H628" />
    <path class="thin" d="M150 46V184" />
    <path class="thin clean" d="M530 46V184M606 46V184" />
    <path class="sensing" :d="sense === 'gallery' ? 'M161 98H184V66H486V46' : 'M139 98H122V46'" data-sense="line" />
    <!-- filter -->
    <g class="filter">
      <path class="can" d="M366 46V150Q366 160 376 160H416Q426 160 426 150V46Z" />
      <path class="media" d="M374 62H388V150H374ZM404 62H418V150H404Z" />
      <path class="pipe clean" d="M396 146V58Q396 46 408 46H424" />
      <text class="soft" x="358" y="118" text-anchor="end">filter</text>
    </g>
    <!-- bearings -->
    <g class="bearing">
      <circle cx="530" cy="112" r="14" />
      <circle cx="530" cy="112" r="8" />
      <text class="soft" x="522" y="92" text-anchor="end">bearings</text>
    </g>
    <g
      v-for="part in parts"
      :key="part.name"
      class="part"
      :class="{ chosen: part.name === chosen, unknown: !part.given }"
      role="button"
      tabindex="0"
      :aria-label="`${part.title}: ${part.lines.join(', ') || 'not stated'}`"
      :data-part="part.name"
      @click="$emit('choose', part.name)"
      @keydown="onKey($event, part.name)"
    >
      <g :transform="`translate(${part.x} ${part.y})`">
        <template v-if="part.name === 'pump'">
          <circle class="sign" r="20" />
          <path class="glyph" d="M-11 8L0 -14L11 8" />
        </template>
        <template v-else-if="part.name === 'regulator'">
          <rect class="sign" x="-11" y="-13" width="22" height="26" />
          <path class="glyph" d="M0 -13V13M-4 5L0 11L4 5M11 0L16 -4L16 4L21 0" />
        </template>
        <template v-else-if="part.name === 'cooler'">
          <rect class="sign" x="-26" y="-13" width="52" height="26" />
          <path class="glyph" d="M-20 6L-12 -6L-4 6L4 -6L12 6L20 -6" />
        </template>
        <template v-else-if="part.name === 'head'">
          <rect class="sign" x="-22" y="-11" width="44" height="22" />
          <path class="glyph" d="M-16 0H8V8" />
        </template>
        <template v-else-if="part.name === 'adapter'">
          <rect class="sign" x="-9" y="-14" width="18" height="28" :stroke-dasharray="part.given ? undefined : '3 3'" />
          <path class="glyph" d="M-3 -8V-5M3 -8V-5M-3 5V8M3 5V8" />
        </template>
        <template v-else-if="part.name === 'stud'">
          <rect class="sign" x="-7" y="-14" width="14" height="28" />
          <path class="glyph" d="M-7 -9L7 -6M-7 -2L7 1M-7 5L7 8" />
        </template>
        <template v-else-if="part.name === 'gallery'">
          <rect class="sign" x="-58" y="-9" width="116" height="18" rx="9" />
          <path class="glyph" d="M-46 0H46" stroke-dasharray="2 6" />
        </template>
        <template v-else>
          <path class="sign" d="M-9 -14H9L4 4H-4Z" />
          <path class="glyph" d="M0 6V16M-5 7L-8 15M5 7L8 15" />
        </template>
      </g>
      <text :x="part.text[0]" :y="part.text[1]" :text-anchor="middle.has(part.name) ? 'middle' : atEnd.has(part.name) ? 'end' : 'start'">
        <tspan class="name">{{ part.title }}</tspan>
        <tspan v-for="(line, i) in part.lines.length ? part.lines : ['not stated']" :key="i" :x="part.text[0]" dy="11.5">{{ line }}</tspan>
      </text>
    </g>
    <g class="part" :class="{ chosen: chosen === 'gauge' }" role="button" tabindex="0" :aria-label="`Gauge tap: ${gauge.replace('_', ' ')}`" data-part="gauge" @click="$emit('choose', 'gauge')" @keydown="onKey($event, 'gauge')">
      <path class="glyph" :d="`M${tap[0]} ${tap[1]}V${tap[1] - 18}`" />
      <circle class="sign" :cx="tap[0]" :cy="tap[1] - 26" r="9" />
      <path class="glyph" :d="`M${tap[0]} ${tap[1] - 26}l4 -5`" />
    </g>
  </svg>
</template>

<style scoped>
.circuit {
  display: block;
  width: 100%;
}
text {
  font-family: var(--body);
  font-size: 12.7px; /* drawn at seven eighths */
  fill: var(--ink);
}
text {
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
text.soft {
  fill: var(--ink-soft);
}
.name {
  font-family: var(--head);
  font-weight: 600;
}
.pipe {
  fill: none;
  stroke: var(--rust);
  stroke-width: 4;
  stroke-linejoin: round;
}
.thin {
  fill: none;
  stroke: var(--rust);
  stroke-width: 1.8;
}
.clean {
  stroke: var(--amber);
}
.sensing {
  fill: none;
  stroke: var(--ink-soft);
  stroke-dasharray: 2 3;
}
.sump {
  fill: var(--slate-wash);
  stroke: var(--slate);
}
.can {
  fill: var(--paper);
  stroke: var(--slate);
  stroke-width: 2;
}
.media {
  fill: var(--amber-wash);
  stroke: var(--amber);
}
.bearing circle {
  fill: var(--paper);
  stroke: var(--slate);
  stroke-width: 1.6;
}
.part {
  cursor: pointer;
}
.sign {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.glyph {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.4;
}
.unknown .sign {
  stroke-dasharray: 4 3;
}
.unknown text {
  fill: var(--ink-soft);
}
.chosen .sign {
  stroke: var(--hand);
  fill: var(--hand-wash);
  stroke-width: 2.4;
}
.chosen .name {
  fill: var(--hand);
}
</style>
