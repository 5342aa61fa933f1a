<script setup lang="ts">
/** The fewest readings, in the order of the hands, with the drawing beside them; everything else is one key away. */
import { computed, ref, toRef } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '@/api/client'
import { catalogue, details, observations } from '@/catalogue/catalogue'
import CopiedMark from '@/entry/CopiedMark.vue'
import ObservationField from '@/entry/ObservationField.vue'
import HolesEntry from '@/entry/HolesEntry.vue'
import ReadingField from '@/entry/ReadingField.vue'
import { waitingWords } from '@/entry/waiting'
import { refusedOf } from '@/shared/useTyped'
import ShortDrawing from './ShortDrawing.vue'
import ShortOilRow from './ShortOilRow.vue'
import { useFigures } from '@/figures/useFigures'
import { headlines } from '@/results/headlines'
import { everythingCopied, thingsOfField, thingsOfPart } from '@/sample/copies'
import { isAnswered, shortKey, stationOfKey } from '@/sample/stations'
import { useBenchChanges, useSheet } from '@/sample/useSheet'
import { listedKey, useKeys } from '@/shared/useKeys'
import { usePreferences } from '@/shared/preferences'
import { useBenchStops } from '@/sample/useBenchStops'

const props = defineProps<{ sampleId: number }>()
const router = useRouter()
const preferences = usePreferences()
const sampleId = toRef(props, 'sampleId')
const sheet = useSheet(sampleId)
const changes = useBenchChanges(sampleId)
const figures = useFigures(sampleId, true)
const lit = ref('')

type Row = Schemas['NeedOut'] & {
  key: string
  field?: Schemas['FieldOut']
  observation?: Schemas['ObservationOut']
  value: string | null
  things: string[]
  /** Sizes of the holes that are there. */
  groups: Schemas['PartOut'][]
  answered: boolean
  /** Something in it is copied and not confirmed. */
  copied: boolean
  /** Its need is met in another way. */
  met: boolean
}

/** Titles name the part: on one page “thickness” alone could be anybody's. */
function titled<T extends { key: string; title: string }>(quantity: T, part: string): T {
  return { ...quantity, title: `${part}, ${quantity.title}` }
}

const open = computed(() => new Set((sheet.data.value?.needs.filter_alone ?? []).map((need) => need.title)))
const rows = computed<Row[]>(() => {
  const { value: now } = sheet.data
  if (!now) return []
  const marked = everythingCopied(now)
  return catalogue().short_sheet.map((row) => {
    const key = shortKey(row)
    const part = now.parts.find((part) => part.fields.some((field) => field.key === key) || part.observations.some((seen) => seen.key === key))
    const field = part?.fields.find((field) => field.key === key)
    const observation = observations().get(key)
    const groups = key.startsWith('holes.') ? now.parts.filter((part) => part.key.startsWith(`${key}[`)) : []
    const of = [...(field ? thingsOfField(field) : []), ...(observation ? [`observations/${key}`] : []), ...groups.flatMap(thingsOfPart)]
    return {
      ...row,
      key,
      field: field && part ? titled(field, part.title) : undefined,
      observation: observation && titled(observation, part?.title ?? ''),
      value: part?.observations.find((observation) => observation.key === key)?.value ?? null,
      groups,
      things: of,
      copied: of.some((thing) => thing in marked),
      answered: isAnswered(now, key),
      met: !row.without && !open.value.has(row.title),
    }
  })
})
const shown = computed(() => (sheet.data.value?.parts ?? []).map((part) => ({ ...part, fields: part.fields.filter((field) => part.hole_group || rows.value.some((row) => row.key === field.key)) })))
const waits = computed(() => {
  const here = new Set(['add/inlet', ...rows.value.map((row) => `words/${row.key}`), ...shown.value.flatMap((part) => part.fields.map((field) => field.key))])
  return waitingWords(shown.value, refusedOf(props.sampleId).filter((key) => here.has(key)).length)
})
const things = computed(() => rows.value.flatMap((row) => row.things))
/** A reading that could not be taken answers its row and leaves the need: what is computed decides. */
const left = computed(() => open.value.size)
const without = computed(() => {
  const results = sheet.data.value?.analysis.results
  return results ? headlines(results, preferences.family).filter((item) => !item.complete).map((item) => item.title) : []
})

/** Hole sizes that make the area; where the holes lie is asked on the full sheet. */
const sizesOf = (group: Schemas['PartOut']) => group.fields.filter((field) => !field.key.endsWith('circle_diameter'))

/** Name of a field in a link to it. */
function fieldTitle(key: string): string {
  const detail = details().get(key)
  return detail?.title ?? catalogue().quantities.find((quantity) => quantity.key === key)?.title ?? observations().get(key)?.title ?? key
}
const to = (key: string) => ({ name: stationOfKey(key, sheet.data.value), query: { field: key } })

/** Everything about the part of the field in hand: its station, at the same field. */
function toAll() {
  const key = document.activeElement?.closest<HTMLElement>('[data-key]')?.dataset.key ?? lit.value
  if (key) void router.push(key === 'oil' ? { name: 'engine' } : to(key))
}

function pick(key: string) {
  if (!stops.focusKey(key)) void router.push(to(key))
}

/** After the last row: the map, if it can be computed. */
function next() {
  if (!stops.step(1) && !left.value) void router.push({ name: 'map' })
}

useKeys([
  listedKey('Enter, Tab', 'take the reading and go to the next (Shift: the one before)'),
  { keys: 'Alt+M', does: 'all readings of this part', words: ['full sheet', 'more fields', 'everything'], matches: (event) => event.altKey && event.code === 'KeyM', run: toAll, inFields: true },
  listedKey('F2', 'put what was likely meant'),
  listedKey('F4', 'confirm the reading that is questioned'),
  listedKey('1 … 9, ← →', 'on pictured choices: choose; Enter goes on, Delete takes it back'),
])

const { root: station, stops, back } = useBenchStops({
  ready: () => sheet.isSuccess.value,
  begin: (stops) => {
    const unsettled = rows.value.find((row) => row.copied || (!row.answered && !row.met && !row.without))
    const first = station.value?.querySelector<HTMLElement>('[data-stop][data-copied]')
    if (unsettled?.copied && first) stops.enter(first)
    else if (!unsettled || !stops.focusKey(unsettled.key)) stops.enter(stops.stops()[0])
  },
})
/** How every field knows its sample, and where the hand goes from it. */
const common = computed(() => ({ sampleId: props.sampleId, family: preferences.family, changes, onNext: next, onPrevious: back }))
</script>

<template>
  <div ref="root" class="short beside-drawing">
    <div class="sheet scrolls">
      <section class="part card" aria-label="Short sheet">
        <header class="spread">
          <h2>Short sheet <CopiedMark :things="things" of="the short sheet" /></h2>
          <p class="soft" role="status">
            <template v-if="!left"><template v-if="without.length">Not there yet: {{ without.join(', ') }}.</template><template v-else>All is there for the five results.</template> <router-link :to="{ name: 'map' }">The map of the filter alone</router-link> is computed.</template>
            <template v-else>{{ left }} more for the five results and the map of the filter alone</template>
          </p>
          <p v-if="waits" class="said-wrong" role="status" data-waits>{{ waits }}</p>
        </header>
        <template v-for="row in rows" :key="row.key">
          <template v-if="row.key.startsWith('holes.')">
            <template v-for="group in row.groups" :key="group.key">
              <ReadingField
                v-for="(field, place) in sizesOf(group)"
                :key="field.key"
                :with-group="place === 0"
                :field="{ ...field, title: `${group.hole_group!.count} inlet holes, ${field.title}` }"
                :hole-group-id="group.hole_group!.id"
                v-bind="common"
                @here="lit = field.key"
              />
            </template>
            <HolesEntry
              placement="inlet"
              :title="row.groups.length ? 'More inlet holes' : 'Inlet holes'"
              :sample-id="sampleId"
              :family="preferences.family"
              :add="changes.addHoles"
              :data-answered="row.answered"
              @next="next"
              @previous="back"
              @here="lit = row.key"
            />
          </template>
          <ReadingField
            v-else-if="row.field"
            :field="row.field"
            v-bind="common"
            @here="lit = row.key"
          />
          <ObservationField
            v-else-if="row.observation"
            :sample-id="sampleId" :observation="row.observation"
            :value="row.value"
            :set="changes.setObservation"
            @next="next"
            @previous="back"
            @here="lit = row.key"
          />
          <ShortOilRow
            v-else-if="row.key === 'oil' && sheet.data.value"
            :name="sheet.data.value.details['oil.name'] ?? (row.answered ? 'an oil of its own' : '')"
            :grades="catalogue().oil_grades"
            :set="(grade) => changes.setOil({ grade }, sheet.data.value!.revisions.oil ?? 0)"
            @next="next"
            @previous="back"
            @here="lit = row.key"
          />
          <p v-if="!row.answered && (row.ways.length > 1 || row.without)" class="ways soft fine flush" :class="{ optional: row.without }">
            <template v-if="row.met">Comes from another field already.</template>
            <template v-else-if="row.without">{{ row.without }}</template>
            <template v-else>
              {{ row.ways[0]!.title }}, or
              <template v-for="(way, i) in row.ways.slice(1)" :key="way.title">
                <template v-if="i">, or </template><router-link :to="to(way.keys.find((key) => key !== 'bypass.seat_inside_diameter') ?? way.keys[0]!)" :title="way.keys.map(fieldTitle).join(', ')">{{ way.title }}</router-link>
              </template>
            </template>
          </p>
        </template>
        <footer class="soft"><kbd>Alt+M</kbd> all readings of the part in hand</footer>
      </section>
    </div>
    <aside v-if="sheet.data.value && figures.data.value" class="drawing" tabindex="0" aria-label="Drawing">
      <ShortDrawing :sheet="sheet.data.value" :figures="figures.data.value" :lit="lit" :family="preferences.family" @pick="pick" />
    </aside>
  </div>
</template>

<style scoped>
.sheet {
  padding: 0.7rem 0.8rem 2rem;
}
.part {
  overflow: hidden;
}
header {
  display: flex;
  align-items: baseline;
  padding: 0.35rem 0.9rem;
}
header p,
footer {
  margin: 0;
  font-size: var(--small);
}
footer {
  padding: 0.3rem 0.9rem;
  border-top: 1px solid var(--line);
}
/* one page: the rows lie closer than on the full sheet, and titles have room for the part */
.short :deep(.row),
.short :deep(.observation),
.short :deep(.holes) {
  grid-template-columns: 14.4rem 8rem 8.6rem minmax(0, 1fr);
  padding-block: 0.08rem;
}
.short :deep(.observation),
.short :deep(.holes) {
  grid-template-columns: 14.4rem minmax(0, 1fr);
}
.short :deep(label),
.short :deep(.title) {
  font-size: var(--small);
}
.short :deep(.mean) {
  font-size: var(--small);
}
.short :deep(.input) {
  min-height: 1.9rem;
  padding-block: 0.1rem;
}
.short :deep(.mean .expanded) {
  display: none; /* it is in the mean's own words, and on the full sheet; where a number comes from stays */
}
.short :deep(.observation svg) {
  display: none;
}
.short :deep(.choices) {
  gap: 0.25rem;
}
.short :deep(.choices button) {
  flex-direction: row;
  gap: 0.25rem;
  padding: 0.1rem 0.35rem;
}
.short :deep(.words) {
  width: 5.5rem;
}
.ways {
  padding: 0 0.9rem 0.15rem 16.2rem;
  line-height: 1.25;
}
/* what an optional row adds is said while it is in hand */
.ways.optional {
  display: none;
}
:focus-within + .ways.optional {
  display: block;
}
@media (max-width: 1100px) {
  .short :deep(.row) {
    grid-template-columns: 10rem 7rem minmax(0, 1fr);
  }
  .short :deep(.observation),
  .short :deep(.holes) {
    grid-template-columns: 10rem minmax(0, 1fr);
  }
  .ways {
    padding-left: 11.8rem;
  }
}
@media (pointer: coarse) {
  .short :deep(.input) {
    min-height: 2.75rem;
  }
}
</style>
