<script setup lang="ts">
/** Each part's share of the loss from pump to gallery; viscous and inertial parts apart, a mark where it was unchanged. */
import { computed } from 'vue'
import type { LossRow } from './lossBreakdown'
import { significant } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'

const props = defineProps<{ alone?: boolean; rows: readonly LossRow[]; unchanged: readonly LossRow[]; sentence: string; family: UnitFamily }>()
const unit = computed(() => shownUnit('kpa', props.family))
const before = computed(() => new Map(props.unchanged.map((row) => [row.name, row.total])))
const largest = computed(() => Math.max(...props.rows.map((row) => row.total), ...props.unchanged.map((row) => row.total), 1e-12))

function width(part: number): string {
  return `${Math.max(0, (100 * part) / largest.value)}%`
}
</script>

<template>
  <section class="losses" :aria-label="alone ? 'Pressure-loss breakdown of the filter alone' : 'Pressure-loss breakdown from pump to gallery'">
    <h2>Pressure-loss breakdown</h2>
    <p class="sentence small" data-losses="sentence">{{ sentence }}</p>
    <table class="wide small">
      <thead>
        <tr>
          <th>{{ alone ? 'inlet to outlet' : 'pump to gallery' }}</th>
          <th class="bar-head fine">
            <span class="key viscous" /> viscous <span class="key inertial" /> inertial
            <template v-if="rows.some((row) => row.spring > 0)">
              <span class="key spring" /> spring
            </template>
            <template v-if="unchanged.length"> <span class="key was" /> unchanged </template>
          </th>
          <th class="number small">{{ unit.symbol }}</th>
          <th class="number small" :title="alone ? 'of the loss from inlet to outlet' : 'of the loss from pump to gallery'">% of all</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.name" :data-part="row.name">
          <td>{{ row.title }}</td>
          <td class="bar">
            <span class="viscous" :style="{ width: width(row.viscous) }" />
            <span class="inertial" :style="{ width: width(row.inertial) }" />
            <span class="spring" :style="{ width: width(row.spring) }" />
            <i v-if="before.has(row.name)" class="was" :style="{ left: width(before.get(row.name)!) }" />
          </td>
          <td class="number small">{{ significant(row.total * unit.factor, 3) }}</td>
          <td class="number small">{{ row.share < 0.005 ? '<1' : Math.round(row.share * 100) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.sentence {
  margin: 0.15rem 0 0.4rem;
}
th {
  color: var(--ink-soft);
  border-bottom: 1px solid var(--line-strong);
  padding: 0 0.3rem 0.15rem 0;
  white-space: nowrap;
}
td {
  padding: 0.14rem 0.3rem 0.14rem 0;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
.bar {
  width: 46%;
  min-width: 6rem;
}
.bar {
  position: relative;
  line-height: 0;
}
i.was {
  position: absolute;
  top: 0.1rem;
  bottom: 0.1rem;
  width: 2px;
  background: var(--hand);
}
.key.was {
  width: 2px;
  background: var(--hand);
}
.bar span {
  display: inline-block;
  height: 0.8rem;
  vertical-align: middle;
}
.key {
  display: inline-block;
  width: 0.8rem;
  height: 0.6rem;
  margin-left: 0.35rem;
}
.viscous {
  background: var(--amber);
}
.inertial {
  background: repeating-linear-gradient(135deg, var(--slate) 0 2px, var(--slate-wash) 2px 5px);
  outline: 1px solid var(--slate);
  outline-offset: -1px;
}
.spring {
  background: var(--line-strong);
}
</style>
