<script setup lang="ts">
/** Why a map cannot be computed yet: what it needs, told as choices, and where each is entered. */
import { computed } from 'vue'
import { ProblemError, type Schemas } from '@/api/client'
import type { Sheet } from '@/sample/useSheet'
import { catalogue, observations } from '@/catalogue/catalogue'
import { fieldOf, inputName } from '@/catalogue/inputs'
import { stationOfKey } from '@/sample/stations'

const props = defineProps<{
  error: Error
  /** Whether it is the map of the filter alone. */
  isAlone: boolean
  titles: ReadonlyMap<string, string>
  sheet: Sheet | undefined
}>()
defineEmits<{ alone: [] }>()

const where = computed(() => (props.error instanceof ProblemError ? props.error.where : ''))
/** Missing inputs; empty if there is another problem. */
const needs = computed(() => (props.isAlone ? props.sheet?.needs.filter_alone : props.sheet?.needs.map) ?? [])
const aloneIsThere = computed(() => !props.isAlone && props.sheet?.needs.filter_alone.length === 0)
const groups = computed(() => {
  const titles: Record<string, string> = Object.fromEntries(catalogue().stations.map((station) => [station.name, station.title]))
  const byGroup = new Map<string, Schemas['OpenNeedOut'][]>()
  for (const need of needs.value) byGroup.set(need.group, [...(byGroup.get(need.group) ?? []), need])
  return [...byGroup].map(([group, needs]) => ({ title: titles[group] ?? group, needs }))
})

const isChoice = (key: string) => key === 'engine' || key === 'oil'
/** Where a way begins: at its first field that is still empty. */
function to(way: Schemas['OpenWayOut']) {
  const key = way.left[0] ?? way.keys[0]!
  if (isChoice(key)) return { name: 'engine' }
  const field = observations().has(key) ? key : fieldOf(key, props.titles)
  return field ? { name: stationOfKey(field, props.sheet), query: { field } } : null
}
function size({ left, entries }: Schemas['OpenWayOut']): string {
  if (left.every(isChoice)) return 'one choice'
  return entries === 1 ? 'one entry' : `${entries} entries`
}
/** There is one way, and it says nothing more than the need. */
const isPlain = (need: Schemas['OpenNeedOut']) => need.ways.length === 1 && need.ways[0]!.title === need.title
/** Title of a need or a way; a bare key has words of its own. */
const called = (title: string) => (/^[\w.[\]]+\.[\w.[\]]+$/.test(title) ? inputName(title, props.titles) : title)
const toPlace = (key: string) => {
  const field = fieldOf(key, props.titles)
  return field ? { name: stationOfKey(field, props.sheet), query: { field } } : null
}
</script>

<template>
  <div class="trouble scrolls">
    <h2>The map {{ isAlone ? 'of the filter alone' : 'in the engine' }} cannot be computed yet</h2>
    <p v-if="aloneIsThere">
      The map of the filter alone needs no engine, and is there:
      <button type="button" class="tool" @click="$emit('alone')">Show the filter alone</button>
    </p>
    <template v-if="needs.length">
      <p>It needs these, in the order of the work; each can be come to in one of several ways, the shortest first.</p>
      <section v-for="group in groups" :key="group.title">
        <h3>{{ group.title }}</h3>
        <ul class="bullets">
          <li v-for="need in group.needs" :key="need.title" :data-need="need.title">
            <template v-if="isPlain(need)">
              <router-link v-if="to(need.ways[0]!)" :to="to(need.ways[0]!)!">{{ called(need.title) }}</router-link>
              <template v-else>{{ called(need.title) }}</template>
            </template>
            <template v-else>
              <strong>{{ called(need.title) }}</strong>:
              <template v-for="(way, i) in need.ways" :key="way.title">
                <template v-if="i">, or </template>
                <router-link v-if="to(way)" :to="to(way)!">{{ called(way.title) }}</router-link>
                <template v-else>{{ called(way.title) }}</template>
                <span class="soft"> ({{ size(way) }})</span>
              </template>
            </template>
          </li>
        </ul>
      </section>
    </template>
    <p v-else class="said-wrong">
      <router-link v-if="where && toPlace(where)" :to="toPlace(where)!">{{ inputName(where, titles) }}</router-link>
      <template v-else-if="where">{{ inputName(where, titles) }}</template>
      {{ error.message }}
    </p>
  </div>
</template>

<style scoped>
.trouble {
  padding: 1rem 0;
}
h3 {
  margin: 0.7rem 0 0.2rem;
}
li {
  margin: 0.15rem 0;
}
a {
  display: inline-block;
  min-height: 1.5rem;
  line-height: 1.5rem;
}
</style>
