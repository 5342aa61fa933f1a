<script setup lang="ts">
/** The stages as stations on one drawn pipe: navigation and progress at once; each is a link with an address of its own. */
import type { Station } from '@/sample/stations'

defineProps<{ stations: readonly Station[]; current: string; address: (name: string) => string }>()
defineEmits<{ go: [name: string] }>()

const TANK = 30
const progressOf = ({ progress, waits }: Station) => (waits ? `${waits} ${waits === 1 ? 'waits' : 'wait'}` : progress)
</script>

<template>
  <nav class="oil-line" aria-label="Stations">
    <ol>
      <li v-for="(station, i) in stations" :key="station.name">
        <a
          :href="address(station.name)"
          :class="{ current: station.name === current }"
          :aria-current="station.name === current ? 'page' : undefined"
          :title="`${station.title}: ${progressOf(station)}`"
          @click.exact.prevent="$emit('go', station.name)"
        >
          <svg width="28" height="46" viewBox="0 0 34 56" aria-hidden="true">
            <defs>
              <clipPath :id="`tank-${station.name}`"><rect x="3" y="13" width="28" :height="TANK" rx="7" /></clipPath>
            </defs>
            <path v-if="i > 0" class="bore" :class="{ wet: stations[i - 1]!.fill >= 1 }" d="M13 0h8v13h-8z" />
            <path v-if="i > 0" class="pipe" d="M13 0v13M21 0v13" />
            <path v-if="i < stations.length - 1" class="bore" :class="{ wet: station.fill >= 1 }" d="M13 43h8v13h-8z" />
            <path v-if="i < stations.length - 1" class="pipe" d="M13 43v13M21 43v13" />
            <rect class="glass" x="3" y="13" width="28" :height="TANK" rx="7" />
            <g :clip-path="`url(#tank-${station.name})`">
              <rect class="oil" x="3" :y="13 + TANK * (1 - station.fill)" width="28" :height="TANK * station.fill" />
            </g>
            <rect class="wall" x="3" y="13" width="28" :height="TANK" rx="7" />
          </svg>
          <span class="words stack">
            <span class="title small strong">{{ station.title }}</span>
            <span class="progress fine" :class="station.waits ? 'said-wrong' : 'soft'">{{ progressOf(station) }}</span>
          </span>
        </a>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
.oil-line {
  border-right: 1px solid var(--line);
  background: var(--ground);
  padding: 0.4rem 0.4rem 0.4rem 0.5rem;
}
a {
  width: 100%;
  border-radius: 10px;
  color: inherit;
  text-decoration: none;
  padding: 0 0.3rem;
  display: flex;
  align-items: center;
  gap: 0.45rem;
}
a:hover {
  background: var(--paper);
}
a.current {
  background: var(--hand-wash);
}
a svg {
  flex: none;
  display: block;
}
.words {
  line-height: 1.2;
}
.title {
  font-family: var(--head);
}
.current .title {
  color: var(--hand);
}
.glass {
  fill: var(--paper);
}
.oil {
  fill: var(--amber);
  opacity: 0.85;
}
@media (prefers-reduced-motion: no-preference) {
  .oil {
    transition: all 0.25s;
  }
}
.wall,
.pipe {
  fill: none;
  stroke: var(--slate);
  stroke-width: 1.8;
}
.current .wall {
  stroke: var(--hand);
  stroke-width: 2.5;
}
.bore {
  fill: var(--paper);
}
.bore.wet {
  fill: var(--amber);
  opacity: 0.85;
}
</style>
