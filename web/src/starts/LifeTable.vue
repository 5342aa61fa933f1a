<script setup lang="ts">
/** Hours until the bypass first opens, warm and at each cold-start temperature; and how fast the sump is cleaned. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { toDigits } from '@/shared/numbers'
import { sampleColour } from '@/shared/sampleColours'

const props = defineProps<{ starts: readonly Schemas['StartOut'][]; warm: number; speed: number; inHand: number }>()
const lasting = computed(() => props.starts.map((one, i) => ({ ...one, colour: sampleColour(i), number: i + 1 })).filter((one) => one.life))
const temperatures = computed(() => lasting.value[0]?.life?.rows.map((row) => row.temperature_c) ?? [])
const sizes = computed(() => [...new Set(lasting.value.flatMap((one) => one.life!.clean_up.map((row) => row.size_um)))].sort((a, b) => a - b))

function hours(value: number | null, never: boolean): string {
  if (never) return 'never'
  if (value === null) return 'none'
  return value === 0 ? 'new' : toDigits(value, 2)
}
const cell = (life: Schemas['LifeOut'], i: number) => {
  const row = life.rows[i]
  return row ? { steady: hours(row.steady_hours, row.never_steady), filling: hours(row.filling_hours, row.never_filling) } : { steady: 'none', filling: 'none' }
}
function minutes(life: Schemas['LifeOut'], size: number): string {
  const found = life.clean_up.find((row) => row.size_um === size)
  return found ? toDigits(found.minutes, 2) : 'none'
}
</script>

<template>
  <section v-if="lasting.length" class="life" aria-label="Life">
    <h2>Hours to the first open bypass, at {{ speed.toFixed(0) }} rpm</h2>
    <p class="soft fine">
      Steady, and in brackets during the first seconds of a start; “new”: open from new. Dirt loads the media until the valve just opens.
      {{ lasting.map((one) => `${one.label} holds ${toDigits(one.life!.capacity_g, 2)} g${one.life!.capacity_assumed ? ' (assumed)' : ''}`).join(', ') }}.
    </p>
    <table>
      <thead>
        <tr>
          <th>oil at, °C</th>
          <th v-for="(celsius, i) in temperatures" :key="celsius" class="number">{{ i === temperatures.length - 1 ? `warm, ${celsius}` : String(celsius).replace('-', '−') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in lasting" :key="one.sample_id" :class="{ hand: one.sample_id === inHand }" :data-life="one.label">
          <td><i :style="{ background: one.colour }" /> {{ one.number }} {{ one.label }}</td>
          <td v-for="(celsius, i) in temperatures" :key="celsius" class="number">
            {{ cell(one.life!, i).steady }} <span class="soft">({{ cell(one.life!, i).filling }})</span>
          </td>
        </tr>
      </tbody>
    </table>
    <h2 class="second">Minutes until half the particles are out of the warm sump</h2>
    <p class="soft fine">As long as nothing new comes; an efficiency that is only a bound or an estimate carries over.</p>
    <table class="half">
      <thead>
        <tr>
          <th>size, µm(c)</th>
          <th v-for="size in sizes" :key="size" class="number">{{ size }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in lasting" :key="one.sample_id" :class="{ hand: one.sample_id === inHand }" :data-clean="one.label">
          <td><i :style="{ background: one.colour }" /> {{ one.number }} {{ one.label }}</td>
          <td v-for="size in sizes" :key="size" class="number">{{ minutes(one.life!, size) }}</td>
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
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.82rem;
}
th {
  font-weight: 500;
  color: var(--ink-soft);
  text-align: left;
  border-bottom: 1px solid var(--line-strong);
}
th.number {
  text-align: right;
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
  font-size: 0.8rem;
  margin: 0.15rem 0;
}
</style>
