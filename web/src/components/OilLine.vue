<script setup lang="ts">
/** The stages as stations on one drawn pipe: navigation and progress at once. */
export interface Station {
  name: string
  title: string
  /** 0 empty to 1 full. */
  fill: number
  progress: string
  key: string
}

defineProps<{ stations: readonly Station[]; current: string }>()
defineEmits<{ go: [name: string] }>()

const TANK = 52
const WIDTH = 56
</script>

<template>
  <nav class="oil-line" aria-label="Stations">
    <ol>
      <li v-for="(station, i) in stations" :key="station.name" :class="{ last: i === stations.length - 1 }">
        <button
          type="button"
          :class="{ current: station.name === current }"
          :aria-current="station.name === current ? 'page' : undefined"
          :title="`${station.title}: ${station.progress} (key ${station.key})`"
          @click="$emit('go', station.name)"
        >
          <svg :width="WIDTH" :height="TANK" viewBox="0 0 56 52" aria-hidden="true">
            <defs>
              <clipPath :id="`tank-${station.name}`"><rect x="9" y="3" width="38" height="46" rx="9" /></clipPath>
            </defs>
            <rect class="glass" x="9" y="3" width="38" height="46" rx="9" />
            <g :clip-path="`url(#tank-${station.name})`">
              <rect class="oil" x="9" :y="49 - 46 * station.fill" width="38" :height="46 * station.fill" />
              <path
                v-for="mark in [0.2, 0.4, 0.6, 0.8]"
                :key="mark"
                class="mark"
                :d="`M9 ${49 - 46 * mark}h7`"
              />
            </g>
            <rect class="wall" x="9" y="3" width="38" height="46" rx="9" />
          </svg>
          <span class="title">{{ station.title }}</span>
          <span class="progress soft">{{ station.progress }}</span>
        </button>
        <svg v-if="i < stations.length - 1" class="pipe" width="56" height="30" viewBox="0 0 56 30" aria-hidden="true">
          <rect class="bore" :class="{ wet: station.fill >= 1 }" x="23" y="0" width="10" height="30" />
          <path class="wall" d="M23 0v30M33 0v30" />
        </svg>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
.oil-line {
  border-right: 1px solid var(--line);
  background: var(--ground);
  padding: 1rem 0.5rem;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-direction: column;
  align-items: center;
}
button {
  width: 100%;
  border: 0;
  border-radius: 10px;
  background: none;
  padding: 0.5rem 0.25rem;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 0.15rem;
  cursor: pointer;
  text-align: center;
}
button:hover {
  background: var(--paper);
}
button.current {
  background: var(--hand-wash);
}
.title {
  font-family: var(--head);
  font-weight: 600;
  font-size: 0.9rem;
}
.current .title {
  color: var(--hand);
}
.progress {
  font-size: 0.78rem;
  line-height: 1.25;
}
.glass {
  fill: var(--paper);
}
.oil {
  fill: var(--amber);
  opacity: 0.85;
  transition: all 0.25s;
}
.mark {
  stroke: var(--ink-soft);
  stroke-width: 1;
}
.wall {
  fill: none;
  stroke: var(--slate);
  stroke-width: 2;
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
