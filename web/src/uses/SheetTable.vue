<script setup lang="ts">
/** The comparison sheet as a table: filters as columns with their cans, rows in groups; a row opens as a picture. */
import { computed, nextTick, ref } from 'vue'
import type { Schemas } from '@/api/client'
import type { UnitFamily } from '@/catalogue/units'
import SampleCan from '@/figures/SampleCan.vue'
import { sampleColour } from '@/shared/sampleColours'
import PercentileStrip from './PercentileStrip.vue'
import RowStrip from './RowStrip.vue'
import { basisWords, cellWords, columnOrder, differenceWords, type Cell, type Row } from './sheetRows'

type Column = Schemas['SheetColumnOut']
const props = defineProps<{ columns: readonly Column[]; rows: readonly Row[]; family: UnitFamily; grouped: boolean; isRough: boolean; percentiles: Schemas['PercentilesOut'] | undefined }>()
/** Row by which the columns stand. */
const by = defineModel<string | null>('by', { required: true })
const emit = defineEmits<{ open: [row: Row, column: Column]; remove: [sampleId: number] }>()

const order = computed(() => columnOrder(props.columns.length, props.rows.find((row) => row.key === by.value)))
const columns = computed(() => order.value.map((i) => ({ ...props.columns[i]!, at: i })))
/** A sample of another study has a colour behind those of the rack. */
const colourOf = (column: Column) => sampleColour(column.rack_place ?? props.columns.length + props.columns.findIndex((item) => item.sample_id === column.sample_id))
const colours = computed(() => props.columns.map(colourOf))
const opened = ref<string | null>(null)

const sections = computed(() => {
  if (!props.grouped) return [{ group: '', rows: props.rows }]
  const byGroup = new Map<string, Row[]>()
  for (const row of props.rows) byGroup.set(row.group, [...(byGroup.get(row.group) ?? []), row])
  return [...byGroup].map(([group, rows]) => ({ group, rows }))
})

const unit = (row: Row) => row[props.family].symbol
function spoken(row: Row, cell: Cell): string {
  const mark = cell.mark === 'tied' ? 'tied with the best' : cell.mark
  return [cell.reason, mark, cell.is_spread_assumed ? 'what specimens differ by is assumed' : ''].filter(Boolean).join('; ')
}

const placeOf = (row: Row) => props.percentiles?.places.find((place) => place.measure === row.key)
/** The filters of the sheet that have a number in a row. */
function pointsOf(row: Row) {
  return props.columns.flatMap((column, i) => {
    const { value } = row.cells[i]!
    return value === null ? [] : [{ label: column.label, colour: colours.value[i]!, value }]
  })
}

async function toggle(row: Row) {
  opened.value = opened.value === row.key ? null : row.key
  await nextTick()
}
</script>

<template>
  <table class="sheet fine">
    <thead class="filters">
      <tr>
        <th scope="col" class="corner">
          <span v-if="by" class="soft">columns by {{ rows.find((row) => row.key === by)?.title ?? by }} <button type="button" class="tool" @click="by = null">as in the rack</button></span>
          <span v-else class="unseen">row</span>
        </th>
        <th v-for="column in columns" :key="column.sample_id" scope="col" :data-column="column.label">
          <span class="can"><SampleCan :height-mm="column.can_height_mm" :diameter-mm="column.can_diameter_mm" :colour="colourOf(column)" :scale="0.3" /></span>
          <strong>{{ column.label }}</strong>
          <span v-if="column.is_reference" class="soft"> ref.</span>
          <template v-if="column.other_study !== null">
            <span class="other fine push" :title="column.other_study">of {{ column.other_study }}</span>
            <span v-if="column.other_conditions.length" class="warned fine push strong wrong">other {{ column.other_conditions.join(' and ') }}</span>
            <button type="button" class="tool remove fine push" :aria-label="`Remove ${column.label} of ${column.other_study}`" @click="emit('remove', column.sample_id)">remove</button>
          </template>
        </th>
      </tr>
    </thead>
    <tbody v-for="section in sections" :key="section.group">
      <tr v-if="section.group" class="group">
        <th :colspan="columns.length + 1" scope="rowgroup">{{ section.group }}</th>
      </tr>
      <template v-for="row in section.rows" :key="row.key">
        <tr :data-row="row.key" :class="{ matters: row.matters }">
          <th scope="row">
            <button type="button" class="title bare" :aria-expanded="row.is_number ? opened === row.key : undefined" :disabled="!row.is_number" @click="toggle(row)">{{ row.title }}</button>
            <span v-if="unit(row)" class="soft unit">{{ unit(row) }}</span>
          </th>
          <td v-for="column in columns" :key="column.sample_id" :class="[row.cells[column.at]!.mark, { words: !row.is_number, apart: row.cells[column.at]!.differs }]">
            <button type="button" class="value bare" :title="spoken(row, row.cells[column.at]!) || undefined" @click="emit('open', row, column)">
              <span :class="['figure', { soft: cellWords(row, row.cells[column.at]!, family).startsWith('not ') }]">{{ cellWords(row, row.cells[column.at]!, family) }}</span>
              <span v-if="row.is_number" class="under fine soft">
                <b v-if="row.cells[column.at]!.mark">{{ row.cells[column.at]!.mark }}</b>
                {{ column.is_reference ? '' : differenceWords(row, row.cells[column.at]!, family) }}
                <i v-if="basisWords(row.cells[column.at]!)">{{ basisWords(row.cells[column.at]!) }}</i>
              </span>
            </button>
          </td>
        </tr>
        <tr v-if="opened === row.key" class="opened">
          <td :colspan="columns.length + 1">
            <RowStrip :row="row" :columns="props.columns" :colours="colours" :family="family" />
            <PercentileStrip v-if="placeOf(row)" :place="placeOf(row)!" :label="percentiles!.label" :others="pointsOf(row)" :family="family" />
            <button type="button" class="tool" @click="by = by === row.key ? null : row.key">{{ by === row.key ? 'columns as in the rack' : 'put the columns in this order' }}</button>
            <span v-if="isRough && row.group.startsWith('Behaviour')" class="soft"> its uncertainty is being computed: nothing is called best before</span>
          </td>
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped>
.sheet {
  border-collapse: separate;
  border-spacing: 0;
  line-height: 1.25;
}
thead th {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--ground);
  border-bottom: 1px solid var(--line-strong);
  vertical-align: bottom;
  text-align: right;
  font-weight: 400;
  min-width: 5.2rem;
  padding: 0.1rem 0.4rem 0.25rem;
}
.can {
  display: flex;
  justify-content: flex-end;
  align-items: flex-end;
  height: 32px;
}
.corner,
tbody th {
  position: sticky;
  left: 0;
  z-index: 1;
  background: var(--ground);
  font-weight: 400;
  width: 13rem;
  min-width: 9.5rem;
}
.corner {
  z-index: 3;
  text-align: left;
}
.group th {
  font-weight: 600;
  padding-top: 0.6rem;
}
tbody th,
td {
  border-bottom: 1px solid var(--line);
  padding: 0.1rem 0.4rem;
  vertical-align: top;
}
.title,
.value {
  min-height: 1.5rem;
}
.title:disabled {
  cursor: default;
}
.title:not(:disabled):hover,
.value:hover .figure {
  text-decoration: underline;
}
.matters .title {
  font-weight: 600;
}
.unit {
  margin-left: 0.3rem;
}
td .value {
  overflow-wrap: anywhere;
  width: 100%;
  text-align: right;
}
td.words .value {
  text-align: left;
}
.figure {
  display: block;
  font-variant-numeric: tabular-nums;
}
.under {
  display: block;
}
.under b {
  font-weight: 600;
}
td.best {
  background: var(--hand-wash);
}
td.best b,
td.tied b {
  color: var(--hand);
}
td.worst {
  background: var(--rust-wash);
}
td.worst b {
  color: var(--rust);
}
td.words.apart .figure {
  font-weight: 600;
}
.other,
.warned,
.remove {
  display: block;
  overflow-wrap: anywhere;
}
.opened td {
  background: var(--paper);
  padding: 0.5rem;
}
@media print {
  .sheet {
    font-size: 7.4pt;
  }
  .under {
    font-size: 6.6pt;
  }
  .corner,
  tbody th,
  thead th {
    position: static;
    background: none;
  }
  .tool {
    display: none;
  }
  tr {
    break-inside: avoid;
  }
}
</style>
