<script setup lang="ts">
/** The values at the crosshair; temperature and speed or flow can be typed. Beside them, what they are unchanged. */
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import { interval, numberWithInterval, shownNumber, significant, toPercent } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'
import type { Crosshair, MapField } from './MapChart.vue'

export interface ValueRow {
  key: string
  title: string
  /** Unit of the wire. */
  wire: string
  value: number | null
  unchanged: number | null
  /** Where the value is only a bound. */
  bound?: '≥' | '≤'
  /** Where it is the least of a range: by how much the greatest is more. */
  upTo?: number
  /** Where it has an interval: by how much its ends are less and more. */
  around?: [number, number]
}

const props = defineProps<{
  field: Pick<MapField, 'temperatures' | 'temperatureUnit' | 'across'>
  acrossUnit: string
  crosshair: Crosshair
  family: UnitFamily
  rows: readonly ValueRow[]
  /** Share of the oil that passes unfiltered; null where the oil does not pump. */
  unfiltered: number | null
  bypassed: number
  hasBypass: boolean
  compared: boolean
}>()
const emit = defineEmits<{ move: [crosshair: Crosshair] }>()

const temperature = computed(() => props.field.temperatures[props.crosshair.row]!)
const across = computed(() => props.field.across[props.crosshair.column]!)
const typedTemperature = ref('')
const typedAcross = ref('')
const said = ref('')

watch(
  [temperature, across],
  () => {
    typedTemperature.value = String(temperature.value)
    typedAcross.value = String(across.value)
    said.value = ''
  },
  { immediate: true },
)

const pumps = computed(() => props.unfiltered !== null)
const shown = computed(() =>
  props.rows.map((row) => {
    const unit = shownUnit(row.wire, props.family)
    const told = (value: number | null) => {
      if (value === null) return 'none'
      const number = value * unit.factor
      if (row.bound) return shownNumber({ value: null, low: row.bound === '≥' ? number : null, high: row.bound === '≥' ? null : number })
      if (row.around) return numberWithInterval(number, number * row.around[0], number * row.around[1])
      return row.upTo ? interval(number, number * row.upTo) : significant(number)
    }
    return { key: row.key, title: row.title, unit: unit.symbol, value: told(row.value), unchanged: told(row.unchanged) }
  }),
)

function nearestIndex(axis: readonly number[], value: number): number {
  return axis.reduce((best, node, i) => (Math.abs(node - value) < Math.abs(axis[best]! - value) ? i : best), 0)
}

function read(text: string, axis: readonly number[], unit: string): number | null {
  const value = Number(text.trim().replace('−', '-').replace(',', '.'))
  const [low, high] = [axis[0]!, axis[axis.length - 1]!]
  if (text.trim() && value >= low && value <= high) return nearestIndex(axis, value)
  said.value = `The map runs from ${low} to ${high} ${unit}: type a number in between.`
  return null
}

function go() {
  said.value = ''
  const row = read(typedTemperature.value, props.field.temperatures, props.field.temperatureUnit.symbol)
  const column = row === null ? null : read(typedAcross.value, props.field.across, props.acrossUnit)
  if (row === null || column === null) return
  emit('move', { row, column })
  typedTemperature.value = String(props.field.temperatures[row])
  typedAcross.value = String(props.field.across[column])
}
</script>

<template>
  <section aria-label="Values at the crosshair">
    <form class="where" @submit.prevent="go">
      <label>
        <span class="unseen">Oil temperature in {{ field.temperatureUnit.symbol }}</span>
        <InputText v-model="typedTemperature" inputmode="decimal" :invalid="said.includes(field.temperatureUnit.symbol)" @change="go" />
        {{ field.temperatureUnit.symbol }}
      </label>
      <label>
        <span class="unseen">{{ acrossUnit === 'rpm' ? 'Engine speed in rpm' : `Filter flow in ${acrossUnit}` }}</span>
        <InputText v-model="typedAcross" inputmode="decimal" :invalid="said.includes(acrossUnit)" @change="go" />
        {{ acrossUnit }}
      </label>
      <button type="submit" class="unseen">Go there</button>
    </form>
    <p v-if="said" class="said-wrong">{{ said }}</p>
    <p class="state" :class="{ open: (unfiltered ?? 0) > 0, cold: !pumps }" aria-live="polite" data-crosshair="state">
      <template v-if="unfiltered === null">The oil is below the pumpability limit here.</template>
      <template v-else-if="unfiltered > 0">
        <strong>{{ toPercent(unfiltered) }} of the oil passes unfiltered</strong>
        <template v-if="bypassed">, bypass open</template>
        <template v-else>, through defects</template>.
      </template>
      <template v-else>All oil passes the media<template v-if="hasBypass">, bypass closed</template>.</template>
    </p>
    <dl v-if="pumps" class="small" :class="{ compared }">
      <div v-for="row in shown" :key="row.key" :class="{ range: row.value.includes(' ') }" :data-value="row.key">
        <dt>{{ row.title }}</dt>
        <dd class="nowrap">
          <span v-if="compared" class="was small soft" title="unchanged">{{ row.unchanged }} →</span>
          <span class="number">{{ row.value }}</span> <span class="soft">{{ row.unit }}</span>
        </dd>
      </div>
    </dl>
  </section>
</template>

<style scoped>
.where {
  display: flex;
  gap: 1rem;
}
.where label {
  display: flex;
  align-items: center;
  gap: 0.4rem;
}
.where input {
  width: 5.2rem;
  font-family: var(--typed);
  text-align: right;
  padding: 0.3rem 0.5rem;
}
.state {
  margin: 0.4rem 0;
  padding: 0.3rem 0.6rem;
  border-left: 5px solid var(--amber);
  background: var(--amber-wash);
}
.state.open {
  border-left-color: var(--rust);
  background: var(--rust-wash);
}
.state.cold {
  border-left-color: var(--slate);
  background: var(--slate-wash);
}
dl {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 1.2rem;
}
dl.compared {
  grid-template-columns: 1fr;
}
dl .range {
  grid-column: 1 / -1;
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
  border-bottom: 1px solid var(--line);
  padding: 0.08rem 0;
}
.was {
  margin-right: 0.3rem;
}
</style>
