<script setup lang="ts">
/** The map as numbers: a row a temperature, a column a speed or flow. */
import { computed } from 'vue'
import { plainNumber, significant } from '@/shared/numbers'
import type { Crosshair, MapField } from './MapChart.vue'

const props = defineProps<{ field: MapField; crosshair: Crosshair; title: string }>()
defineEmits<{ move: [crosshair: Crosshair] }>()

/** Every fourth speed fits the screen; the file holds them all. */
const STRIDE = 4
const columns = computed(() => props.field.across.map((value, i) => ({ value, i })).filter(({ i }) => i % STRIDE === 2))
const rows = computed(() => props.field.temperatures.map((value, i) => ({ value, i })).filter(({ i }) => i % 2 === 0).reverse())
const cell = (row: number, column: number) => {
  const value = props.field.grid[row]?.[column] ?? null
  return value === null ? 'none' : significant(value * props.field.unit.factor, 3)
}
</script>

<template>
  <div class="table scrolls" tabindex="0" role="region" :aria-label="`${title} as a table`">
    <table class="wide small">
      <caption class="small soft">
        {{ title }}, {{ field.unit.symbol }}; oil temperature in {{ field.temperatureUnit.symbol }} down, {{ field.acrossTitle }} across
      </caption>
      <thead>
        <tr>
          <th><span class="unseen">temperature</span></th>
          <th v-for="column in columns" :key="column.i" class="number" scope="col">{{ column.value }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.i" :class="{ here: row.i === crosshair.row }">
          <th class="number" scope="row">{{ plainNumber(row.value, 6) }}</th>
          <td v-for="column in columns" :key="column.i" class="number" @click="$emit('move', { row: row.i, column: column.i })">
            {{ cell(row.i, column.i) }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.table {
  min-height: 0;
}
caption {
  text-align: left;
  padding-bottom: 0.3rem;
}
th {
  font-weight: 600;
}
thead th {
  position: sticky;
  top: 0;
  background: var(--ground);
  border-bottom: 1px solid var(--line-strong);
}
td,
th {
  padding: 0.06rem 0.45rem;
  border-bottom: 1px solid var(--line);
}
td {
  cursor: pointer;
}
.here {
  background: var(--hand-wash);
}
</style>
