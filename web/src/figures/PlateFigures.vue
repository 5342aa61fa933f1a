<script setup lang="ts">
/** Beside the plate: products of the hole groups, the sections as nested discs to scale, each bore an engine may have. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { significant } from '@/shared/numbers'
import { outletRows, lossRatioWords, productLines, sectionDiscs } from './plateFigures'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{ plate: Schemas['PlateOut']; family: UnitFamily }>()

const products = computed(() => productLines(props.plate.summary, props.family))
const discs = computed(() => sectionDiscs(props.plate.summary, props.family))
const outlets = computed(() => outletRows(props.plate.summary, props.family))
const length = computed(() => shownUnit('mm', props.family))
const area = computed(() => shownUnit('mm2', props.family))
const widest = computed(() => Math.max(1, ...discs.value.map((disc) => disc.radius)))
const description = computed(
  () => `Sections as discs of their area: ${discs.value.map((disc) => disc.words + (disc.controls ? ', controls' : '')).join('; ')}.`,
)
</script>

<template>
  <div class="figures small">
    <section v-if="plate.drawing.problems.length" class="problems" role="alert">
      <p v-for="problem in plate.drawing.problems" :key="problem" class="said-wrong">{{ problem }}</p>
    </section>
    <section>
      <h3 class="small">Inlet hole area</h3>
      <p v-for="product in products" :key="product" class="number product small">{{ product }}</p>
      <p v-if="!products.length" class="soft">no holes with their sizes yet</p>
      <p v-if="plate.summary.equivalent_diameter_mm" class="fine">
        as one round hole ⌀ {{ significant(plate.summary.equivalent_diameter_mm * length.factor, 3) }} {{ length.symbol }}, edge
        {{ significant(plate.summary.perimeter_mm * length.factor, 3) }} {{ length.symbol }}. {{ lossRatioWords(plate.summary) }}
      </p>
    </section>
    <section v-if="discs.length">
      <h3 class="small">Sections at the plate, to scale</h3>
      <div class="sections row">
        <svg
          :viewBox="`${-widest - 1} ${-2 * widest - 1} ${2 * widest + 2} ${2 * widest + 2}`"
          width="88"
          height="88"
          role="img"
          :aria-label="description"
        >
          <circle
            v-for="disc in discs"
            :key="disc.name"
            :class="{ controls: disc.controls }"
            :cy="-disc.radius"
            :r="disc.radius"
            :stroke-width="widest / 35"
          />
        </svg>
        <ul>
          <li v-for="disc in discs" :key="disc.name" :class="{ controls: disc.controls }">
            {{ disc.words }}<strong v-if="disc.controls"> controls</strong>
          </li>
        </ul>
      </div>
    </section>
    <table v-if="outlets.length" class="fine">
      <thead>
        <tr>
          <th>outlet</th>
          <th class="number">⌀ {{ length.symbol }}</th>
          <th class="number">flow area, {{ area.symbol }}</th>
          <th>controls</th>
          <th v-if="outlets.some((row) => row.adapter)">adapter holes</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in outlets" :key="row.name">
          <td>{{ row.name }}</td>
          <td class="number">{{ row.bore }}</td>
          <td class="number">{{ row.flow }}</td>
          <td>{{ row.controls }}</td>
          <td v-if="row.adapter">{{ row.adapter }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.figures {
  display: grid;
  gap: 0.55rem;
  align-content: start;
}
p {
  margin: 0.1rem 0 0;
}
.product {
  text-align: left;
}
.fine {
  line-height: 1.3;
}
.problems {
  border: 1px solid var(--rust);
  border-radius: 8px;
  padding: 0.3rem 0.6rem;
}
.problems p::first-letter {
  text-transform: uppercase;
}
.sections {
  gap: 0.8rem;
}
.sections svg {
  flex: none;
}
circle {
  fill: var(--slate-wash);
  fill-opacity: 0.55;
  stroke: var(--slate);
}
circle.controls {
  fill: var(--amber);
  fill-opacity: 0.75;
  stroke: var(--ink);
}
ul {
  line-height: 1.35;
}
th {
  color: var(--ink-soft);
}
th:nth-child(3) {
  width: 4.2rem;
}
th {
  vertical-align: bottom;
}
td:nth-child(n + 2) {
  white-space: nowrap;
}
th,
td {
  padding: 0.1rem 0.5rem 0.1rem 0;
  vertical-align: top;
}
tbody tr {
  border-top: 1px solid var(--line);
}
</style>
