<script setup lang="ts">
/** The values at the crosshair; temperature and speed can be typed. */
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import type { OperatingMap } from '@/composables/useOperatingMap'
import { toDigits, toPercent } from '@/lib/numbers'
import { shownUnit, type UnitFamily } from '@/lib/units'
import type { Crosshair } from './MapChart.vue'

const props = defineProps<{ map: OperatingMap; crosshair: Crosshair; family: UnitFamily }>()
const emit = defineEmits<{ move: [crosshair: Crosshair] }>()

const temperature = computed(() => props.map.temperature_c[props.crosshair.row]!)
const speed = computed(() => props.map.speed_rpm[props.crosshair.column]!)
const typedTemperature = ref('')
const typedSpeed = ref('')
const said = ref('')

watch(
  [temperature, speed],
  () => {
    typedTemperature.value = String(temperature.value)
    typedSpeed.value = String(speed.value)
    said.value = ''
  },
  { immediate: true },
)

type GridKey = 'element_kpa' | 'filter_kpa' | 'gallery_kpa' | 'pump_kpa' | 'gauge_kpa' | 'filter_flow_l_min' | 'bypass_fraction' | 'defect_fraction' | 'lift_mm'

function at(key: GridKey): number | null {
  return props.map[key][props.crosshair.row]?.[props.crosshair.column] ?? null
}

const TAPS = { pump: 'at pump', filter_inlet: 'before filter', gallery: 'at gallery' } as const

const pumps = computed(() => at('element_kpa') !== null)
const unfiltered = computed(() => (at('bypass_fraction') ?? 0) + (at('defect_fraction') ?? 0))
const rows = computed(() => {
  const named: [string, GridKey, string][] = [
    ['Element Δp', 'element_kpa', 'kpa'],
    ['Filter Δp', 'filter_kpa', 'kpa'],
    ['Pump outlet', 'pump_kpa', 'kpa'],
    ['Main gallery', 'gallery_kpa', 'kpa'],
    [`Gauge ${TAPS[props.map.gauge]}`, 'gauge_kpa', 'kpa'],
    ['Filter flow', 'filter_flow_l_min', 'l_min'],
    ['Bypass lift', 'lift_mm', 'mm'],
  ]
  return named
    .filter(([, key]) => key !== 'lift_mm' || props.map.bypass_location !== 'none')
    .map(([title, key, wire]) => {
      const unit = shownUnit(wire, props.family)
      const value = at(key)
      return { key, title, unit: unit.symbol, value: value === null ? 'none' : toDigits(value * unit.factor, 3) }
    })
})

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
  const row = read(typedTemperature.value, props.map.temperature_c, '°C')
  const column = row === null ? null : read(typedSpeed.value, props.map.speed_rpm, 'rpm')
  if (row === null || column === null) return
  emit('move', { row, column })
  typedTemperature.value = String(props.map.temperature_c[row])
  typedSpeed.value = String(props.map.speed_rpm[column])
}
</script>

<template>
  <section aria-label="Values at the crosshair">
    <form class="where" @submit.prevent="go">
      <label>
        <span class="unseen">Oil temperature in °C</span>
        <InputText v-model="typedTemperature" inputmode="decimal" :invalid="said.includes('°C')" @change="go" />
        °C
      </label>
      <label>
        <span class="unseen">Engine speed in rpm</span>
        <InputText v-model="typedSpeed" inputmode="decimal" :invalid="said.includes('rpm')" @change="go" />
        rpm
      </label>
      <button type="submit" class="unseen">Go there</button>
    </form>
    <p v-if="said" class="said-wrong">{{ said }}</p>
    <p class="state" :class="{ open: unfiltered > 0, cold: !pumps }" aria-live="polite" data-crosshair="state">
      <template v-if="!pumps">The oil will not pump here.</template>
      <template v-else-if="unfiltered > 0">
        <strong>{{ toPercent(unfiltered) }} of the oil passes unfiltered</strong>
        <template v-if="at('bypass_fraction')">, bypass open</template>
        <template v-else>, through defects</template>.
      </template>
      <template v-else>All oil passes the media<template v-if="map.bypass_location !== 'none'">, bypass closed</template>.</template>
    </p>
    <dl v-if="pumps">
      <div v-for="row in rows" :key="row.key" :data-value="row.key">
        <dt>{{ row.title }}</dt>
        <dd>
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
  width: 5.4rem;
  font-family: var(--typed);
  font-size: 1.02rem;
  text-align: right;
}
.state {
  margin: 0.5rem 0;
  padding: 0.35rem 0.6rem;
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
  margin: 0;
  font-size: 0.88rem;
}
dl div {
  display: flex;
  justify-content: space-between;
  border-bottom: 1px solid var(--line);
  padding: 0.1rem 0;
}
dd {
  margin: 0;
  white-space: nowrap;
}
</style>
