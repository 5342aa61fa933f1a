<script setup lang="ts">
/** Hours until the bypass first opens, warm and at each cold-start temperature; and how fast the sump is cleaned. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { inUnit, shownUnit, type UnitFamily } from '@/catalogue/units'
import { bound, plainNumber, shownNumber, significant } from '@/shared/numbers'
import { sampleColour } from '@/shared/sampleColours'

const props = defineProps<{
  starts: readonly Schemas['StartOut'][]
  warm: number
  speeds: readonly Schemas['LifeSpeedOut'][]
  inHand: number
  family: UnitFamily
}>()
const unit = computed(() => shownUnit('c', props.family))
const lasting = computed(() => props.starts.map((start, i) => ({ ...start, colour: sampleColour(i), number: i + 1 })).filter((item) => item.lives.length))
const temperatures = computed(() => lasting.value[0]?.lives[0]?.rows.map((row) => row.temperature_c) ?? [])
const sizes = computed(() => [...new Set(lasting.value.flatMap((item) => item.lives[0]!.clean_up.map((row) => row.size_um)))].sort((a, b) => a - b))
const speedWords = computed(() => props.speeds.map((speed) => `${speed.speed_rpm.toFixed(0)} rpm`))
const shareWords = computed(() =>
  props.speeds.map((speed) => `${speed.speed_rpm.toFixed(0)} rpm (${speed.share_percent === 50 ? 'median' : `${speed.share_percent} %`})`).join(' and '),
)

function hours(value: number | null, never: boolean, isLeast: boolean): string {
  if (never) return 'never'
  if (value === null) return 'none'
  if (isLeast) return `≥ ${bound(value, 2, 'lower')}`
  return value === 0 ? 'new' : significant(value, 2)
}
const HELD: Readonly<Record<string, string>> = { family: ' (assumed)', counts: ' of test dust, counted' }
function holds(start: Schemas['StartOut']): string {
  const { capacity } = start.lives[0]!
  const corrected = capacity.corrected_by ? ` (assumed, corrected by what ${capacity.corrected_by} held)` : HELD[capacity.basis] ?? ''
  return `${start.label} holds ${capacity.is_least ? 'at least ' : ''}${significant(capacity.mass_g, 2)} g${corrected}`
}
const off = computed(() => Math.max(1, ...lasting.value.map((item) => item.lives[0]!.factor)))
const cell = (life: Schemas['LifeOut'], i: number) => {
  const row = life.rows[i]
  return row ? { steady: hours(row.steady_time_hours, row.never_steady, row.steady_is_least), filling: hours(row.filling_time_hours, row.never_filling, row.filling_is_least) } : { steady: 'none', filling: 'none' }
}
const reaching = computed(() => lasting.value.filter((item) => item.reaching.length))
const reached = computed(() => [...new Set(reaching.value.flatMap((item) => item.reaching.map((row) => row.size_um)))].sort((a, b) => a - b))
function share(start: Schemas['StartOut'], size: number): string {
  const match = start.reaching.find((row) => row.size_um === size)
  if (!match) return 'none'
  return shownNumber({ value: match.value_percent, low: match.low_percent, high: match.high_percent }, 2)
}
/** A value; a bound with its sign; the two ends of an envelope. */
function minutes(life: Schemas['LifeOut'], size: number): string {
  const match = life.clean_up.find((row) => row.size_um === size)
  return match ? shownNumber({ value: match.half_life_min, low: match.low_min, high: match.high_min }, 2) : 'none'
}
</script>

<template>
  <section v-if="lasting.length" class="life" aria-label="Life">
    <h2>Hours to the first open bypass</h2>
    <p class="soft fine" data-life="speeds">
      At {{ shareWords }}: speeds that the engine does not exceed for half and for 90 % of the time in which it turns in this duty cycle.
      Steady, and in brackets during the first seconds of a start; “new”: open from new. Dirt loads the media until the valve just opens.
      {{ lasting.map(holds).join(', ') }}.
      <template v-if="off > 1">By what is assumed of capacity and ingress the hours are good to a factor of {{ significant(off, 2) }} either way, 95 %; ingress is the same for all. </template>
      <template v-if="lasting.some((item) => item.lives[0]!.capacity.basis === 'counts')">Grams of test dust compare filters; the dirt of an engine is another.</template>
    </p>
    <table class="wide fine">
      <thead>
        <tr>
          <th>oil at, {{ unit.symbol }}</th>
          <th>speed</th>
          <th v-for="(celsius, i) in temperatures" :key="celsius" class="number">{{ i === temperatures.length - 1 ? `warm, ${plainNumber(inUnit(celsius, unit))}` : plainNumber(inUnit(celsius, unit), 6) }}</th>
        </tr>
      </thead>
      <tbody v-for="item in lasting" :key="item.sample_id" :class="{ hand: item.sample_id === inHand }" :data-life="item.label">
        <tr v-for="(life, s) in item.lives" :key="s">
          <td v-if="s === 0" :rowspan="item.lives.length"><i :style="{ background: item.colour }" /> {{ item.number }} {{ item.label }}</td>
          <td class="soft">{{ speedWords[s] }}</td>
          <td v-for="(celsius, i) in temperatures" :key="celsius" class="number">
            {{ cell(life, i).steady }} <span class="soft">({{ cell(life, i).filling }})</span>
          </td>
        </tr>
      </tbody>
    </table>
    <h2 class="second">Minutes until half the particles are out of the warm sump, at {{ speedWords[0] }}</h2>
    <p class="soft fine">As long as nothing new comes. From an efficiency that is only “at least” follows a time that is only “at most” (≤).</p>
    <table class="half wide fine">
      <thead>
        <tr>
          <th>size, µm(c)</th>
          <th v-for="size in sizes" :key="size" class="number">{{ size }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in lasting" :key="item.sample_id" :class="{ hand: item.sample_id === inHand }" :data-clean="item.label">
          <td><i :style="{ background: item.colour }" /> {{ item.number }} {{ item.label }}</td>
          <td v-for="size in sizes" :key="size" class="number">{{ minutes(item.lives[0]!, size) }}</td>
        </tr>
      </tbody>
    </table>
    <h2 class="second">Of the particles that the oil carries to the filter over the start, reaching the engine, %</h2>
    <p class="soft fine">Past the media, and through it; the efficiency is that at the flow and viscosity of its test, or of its claim.</p>
    <table class="half wide fine">
      <thead>
        <tr>
          <th>size, µm(c)</th>
          <th v-for="size in reached" :key="size" class="number">{{ size }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in reaching" :key="item.sample_id" :class="{ hand: item.sample_id === inHand }" :data-reaching="item.label">
          <td><i :style="{ background: item.colour }" /> {{ item.number }} {{ item.label }}</td>
          <td v-for="size in reached" :key="size" class="number">{{ share(item, size) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.life {
  margin-top: 0.8rem;
  overflow-x: auto;
}
th {
  color: var(--ink-soft);
  border-bottom: 1px solid var(--line-strong);
}
td {
  padding: 0.14rem 0.3rem 0.14rem 0;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
table.half {
  max-width: 40rem;
}
.second {
  margin-top: 0.8rem;
}
.hand {
  background: var(--hand-wash);
}
i {
  display: inline-block;
  width: 0.8rem;
  height: 0.8rem;
  border-radius: 2px;
  vertical-align: -1px;
}
.fine {
  margin: 0.15rem 0;
}
</style>
