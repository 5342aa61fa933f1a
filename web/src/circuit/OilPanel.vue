<script setup lang="ts">
/** The oil: its line, its points typed or dragged, typical grades to begin with, and any temperature read off.
 *  The kind of viscosity is a plain select, one in every row of a table that is walked with Tab. */
import { computed, ref, watch } from 'vue'
import { ProblemError, type Schemas } from '@/api/client'
import { previewLine, type OilLine } from './useEngine'
import { fromUnit, inUnit, shownUnit, type UnitFamily } from '@/catalogue/units'
import { useRefusal } from '@/shared/useRefusal'
import { significant } from '@/shared/numbers'
import ChoiceField from '@/shared/ChoiceField.vue'
import OilChart from './OilChart.vue'

type Point = Schemas['ViscosityPoint']

const props = defineProps<{
  line: OilLine | null
  /** Revision of the points, as they came with the line. */
  revision: number
  grades: readonly string[]
  family: UnitFamily
  /** Density as it is saved, for a line that is only looked at. */
  setOil: (body: Schemas['OilIn'], revision: number) => Promise<unknown>
}>()

const grade = ref('')
const gradeOptions = computed(() => [
  { value: '', label: 'begin with a typical grade …' },
  ...props.grades.map((grade) => ({ value: grade, label: `${grade}, typical` })),
])
const { refused: refusal, guarded } = useRefusal()
const unit = computed(() => shownUnit('c', props.family))
/** Temperature the line is read at. [°C] */
const reading = ref(-25)
const typedReading = ref('')
watch([reading, unit], () => (typedReading.value = String(inUnit(reading.value, unit.value))), { immediate: true })
const dragged = ref<Point[] | null>(null)
const preview = ref<OilLine | null>(null)

const shown = computed(() => preview.value ?? props.line)
/** The points as they are saved, in the kind of viscosity they were stated in. */
const stored = computed<Point[]>(() =>
  (props.line?.points ?? []).map((point) => ({
    temperature_c: point.temperature_c,
    kinematic_mm2_s: point.is_dynamic ? null : point.stated,
    dynamic_mpa_s: point.is_dynamic ? point.stated : null,
    high_shear: point.high_shear,
  })),
)
const rows = ref<{ temperature: string; viscosity: string; isDynamic: boolean; highShear: boolean }[]>([])

/** Temperature of a point as it is stated: never converted, and with its unit where the heading has another. */
function statedTemperature(i: number, family: UnitFamily): string {
  const point = props.line!.points[i]!
  return point.typed_temperature ?? `${point.temperature_c}${family === 'metric' ? '' : ' °C'}`
}
watch(
  () => props.family,
  (family, before) => {
    for (const [i, row] of rows.value.entries()) if (stored.value[i] && row.temperature === statedTemperature(i, before)) row.temperature = statedTemperature(i, family)
  },
)

watch(
  stored,
  (points) => {
    rows.value = points.map((point, i) => ({
      temperature: statedTemperature(i, props.family),
      viscosity: props.line?.points[i]?.typed_viscosity ?? toShort(point.dynamic_mpa_s ?? point.kinematic_mm2_s ?? 0),
      isDynamic: point.dynamic_mpa_s != null,
      highShear: !!point.high_shear,
    }))
    dragged.value = null
    preview.value = null
  },
  { immediate: true },
)

function toShort(value: number): string {
  return String(Number(value.toPrecision(6)))
}

const at = computed(() => {
  const line = shown.value
  if (!line) return null
  const above = line.temperature_c.findIndex((celsius) => celsius >= reading.value)
  const i = Math.max(1, above < 0 ? line.temperature_c.length - 1 : above)
  const [before, after] = [line.temperature_c[i - 1]!, line.temperature_c[i]!]
  const along = Math.min(1, Math.max(0, (reading.value - before) / (after - before)))
  const between = (values: readonly number[]) => values[i - 1]! ** (1 - along) * values[i]! ** along
  return {
    kinematic: between(line.kinematic_mm2_s),
    dynamic: between(line.dynamic_mpa_s),
    density: between(line.density_kg_m3),
    extended: reading.value < line.coldest_point_c || reading.value > line.warmest_point_c,
    still: reading.value < line.coldest_pumping_c,
  }
})

function onReading() {
  const celsius = fromUnit(Number(typedReading.value.replace('−', '-').replace(',', '.')), unit.value)
  if (typedReading.value.trim() && celsius >= -50 && celsius <= 160) reading.value = celsius
  typedReading.value = String(inUnit(reading.value, unit.value))
}

async function store(body: Schemas['OilIn']) {
  if (await guarded(() => props.setOil(body, props.revision))) grade.value = ''
}

/** The rows go to the server as they were typed: it understands them, or says which row is wrong and why. */
async function onRows() {
  await store({
    family: props.family,
    rows: rows.value.map((row) => ({ temperature: row.temperature, viscosity: row.viscosity, is_dynamic: row.isDynamic, high_shear: row.highShear })),
  })
}

function addRow() {
  rows.value.push({ temperature: '', viscosity: '', isDynamic: false, highShear: false })
}

async function removeRow(index: number) {
  rows.value.splice(index, 1)
  await onRows()
}

/** Where a point is being dragged to; the server says what that means in the viscosity it was stated in. */
let asked: Schemas['MovedPointIn'] | null = null
let asking = false
async function onDrag(index: number, celsius: number, kinematic: number) {
  asked = { index, temperature_c: celsius, kinematic_mm2_s: kinematic }
  if (asking || !props.line) return
  asking = true
  const density = props.line.density_kg_m3[props.line.temperature_c.indexOf(15)]!
  while (asked) {
    const moved: Schemas['MovedPointIn'] = asked
    asked = null
    try {
      preview.value = await previewLine({ density_15c_kg_m3: density, viscosity: stored.value, pumping_limit_c: null, moved })
      dragged.value = preview.value.viscosity
      refusal.value = ''
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error
      refusal.value = error.message
    }
  }
  asking = false
}

async function onDrop() {
  const points = dragged.value
  if (!points) return
  await store({ viscosity: points })
  dragged.value = null
  preview.value = null
}
</script>

<template>
  <section class="panel oil" aria-label="Oil">
    <div class="top row">
      <h2>Oil</h2>
      <ChoiceField v-model="grade" :options="gradeOptions" label="Typical oil of a grade" @update:model-value="grade && store({ grade })" />
      <form class="read" @submit.prevent="onReading">
        <label>at <input v-model="typedReading" :aria-label="`Temperature to read the line at, in ${unit.symbol}`" inputmode="decimal" @change="onReading" /> {{ unit.symbol }}</label>
      </form>
    </div>
    <p v-if="refusal" class="said-wrong" role="alert">{{ refusal }}</p>
    <p v-if="!shown" class="soft">No oil yet. Choose a typical grade to begin with, then type the points of the data sheet.</p>
    <template v-else>
      <p v-if="at" class="fine at" data-oil="reading">
        <strong>{{ significant(at.dynamic, 3) }}</strong> mPa·s dynamic · <strong>{{ significant(at.kinematic, 3) }}</strong> mm²/s kinematic ·
        {{ significant(at.density, 3) }} kg/m³
        <em v-if="at.still" class="wrong"> · below the pumpability limit</em><em v-else-if="at.extended" class="wrong"> · extended beyond the points</em>
      </p>
      <OilChart :line="shown" :family="family" :reading="reading" @read="reading = $event" @drag="onDrag" @drop="onDrop" />
      <table class="points">
        <thead>
          <tr>
            <th>{{ unit.symbol }}</th>
            <th>viscosity</th>
            <th>kind</th>
            <th>high shear</th>
            <th><button type="button" class="link" @click="addRow">+ point</button></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in rows" :key="i" :data-row="i">
            <td><input v-model="row.temperature" :aria-label="`Temperature of point ${i + 1} in ${unit.symbol}`" @change="row.viscosity && onRows()" /></td>
            <td><input v-model="row.viscosity" :aria-label="`Viscosity of point ${i + 1}`" @change="row.temperature && onRows()" /></td>
            <td>
              <select v-model="row.isDynamic" :aria-label="`Kind of viscosity of point ${i + 1}`" @change="onRows">
                <option :value="false">mm²/s, kinematic</option>
                <option :value="true">mPa·s, dynamic</option>
              </select>
            </td>
            <td><input v-model="row.highShear" type="checkbox" :aria-label="`Point ${i + 1} taken at high shear, as cold cranking is`" @change="onRows" /></td>
            <td><button v-if="rows.length > 2" type="button" class="link" :aria-label="`Remove point ${i + 1}`" @click="removeRow(i)">remove</button></td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
.top {
  gap: 0.8rem;
}
.top h2 {
  margin-right: auto;
}
.top label {
  font-size: var(--small);
}
.at {
  padding: 0.2rem 0.5rem;
  border-left: 4px solid var(--hand);
  background: var(--hand-wash);
}
.read input {
  width: 4rem;
  text-align: right;
}
.points input:not([type='checkbox']) {
  width: 6.4rem;
  text-align: right;
  font-family: var(--typed);
}
.points td {
  padding: 0.08rem 0.3rem 0.08rem 0;
}
</style>
