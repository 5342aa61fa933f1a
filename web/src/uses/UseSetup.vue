<script setup lang="ts">
/** A use: its points, its criteria with weights and end points, its requirements. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import ChoiceField from '@/shared/ChoiceField.vue'
import { catalogue } from '@/catalogue/catalogue'
import { inUnit } from '@/catalogue/units'
import { usePreferences } from '@/shared/preferences'
import { useRefusal } from '@/shared/useRefusal'
import AddChoice from './AddChoice.vue'
import HandOrder from './HandOrder.vue'
import MeasureNumber from './MeasureNumber.vue'
import { lineKeys, withLine } from './lines'
import { METHODS } from './ranking'
import type { Measure, StoredUse, Use } from './useUses'
import type { Judged } from './useJudged'

type Criterion = NonNullable<Use['criteria']>[number]
type Requirement = NonNullable<Use['requirements']>[number]

const props = defineProps<{
  stored: StoredUse
  measures: readonly Measure[]
  labels: readonly string[]
  tiers: readonly string[]
  shops: readonly string[]
  /** Preferences of the analyst among observations, for every study. */
  preferred: readonly Schemas['PreferenceOut'][]
  judged: Judged | undefined
  change: (changed: (use: Use) => Use) => Promise<unknown>
}>()
const preferences = usePreferences()
const { refused, guarded } = useRefusal()
const use = computed(() => props.stored.use)
const criteria = computed(() => use.value.criteria ?? [])
const requirements = computed(() => use.value.requirements ?? [])
const byKey = computed(() => new Map(props.measures.map((measure) => [measure.key, measure])))
const BARE = { metric: { symbol: '', factor: 1, zero: 0 }, inch: { symbol: '', factor: 1, zero: 0 } }
const { c: TEMPERATURE, km: DISTANCE } = catalogue().units as Record<string, typeof BARE>
const degrees = computed(() => TEMPERATURE![preferences.family].symbol)
const distance = computed(() => DISTANCE![preferences.family].symbol)

const POINTS = [
  { title: 'cold', temperature: 'temperature_c', speed: 'speed_rpm' },
  { title: 'hot', temperature: 'hot_temperature_c', speed: 'hot_speed_rpm' },
] as const

const set = (changes: Partial<Use>) => guarded(() => props.change((now) => ({ ...now, ...changes })))
const setPoint = (name: (typeof POINTS)[number]['temperature' | 'speed']) => (value: number | null) => props.change((now) => ({ ...now, [name]: value }))

/** Each change is of the line as it was seen, wherever it stands by then. */
function ofCriterion(index: number, become: (criterion: Criterion) => Criterion | null) {
  const seen = criteria.value
  return props.change((now) => ({ ...now, criteria: withLine(now.criteria ?? [], seen, index, become) }))
}
function ofRequirement(index: number, become: (requirement: Requirement) => Requirement | null) {
  const seen = requirements.value
  return props.change((now) => ({ ...now, requirements: withLine(now.requirements ?? [], seen, index, become) }))
}
const withCriterion = (index: number, changes: Partial<Criterion>) => ofCriterion(index, (item) => ({ ...item, ...changes }))
/** Value of a field once its text is understood: of the line that stands here now. */
const taker = (index: number, changes: (value: number | null) => Partial<Criterion>) => {
  const seen = criteria.value
  return (value: number | null) =>
    props.change((now) => ({ ...now, criteria: withLine(now.criteria ?? [], seen, index, (item) => ({ ...item, ...changes(value) })) }))
}

/** Measures to choose from, by what they belong to. */
const numberOptions = computed(() => [
  { value: '', label: 'add a criterion …' },
  ...props.measures.filter((measure) => measure.is_number || preferenceOf(measure.key)).map((item) => ({ value: item.key, label: item.key === 'by_hand' ? 'an order made by hand' : `${item.title} (${item.group})` })),
])
const requirementOptions = computed(() => [
  { value: '', label: 'add a requirement …' },
  ...props.measures.filter((measure) => measure.key !== 'by_hand').map((item) => ({ value: item.key, label: `${item.title} (${item.group})` })),
])

/** Observations whose choices can be ranked. */
function preferenceOf(key: string) {
  return props.preferred.find((item) => item.key === key)
}
/** An order made by hand, of filters or of choices. */
const isOrder = (criterion: Criterion) => criterion.measure === 'by_hand' || measureOf(criterion.measure)?.is_number === false
const orderEntries = (criterion: Criterion) => (criterion.measure === 'by_hand' ? props.labels : (measureOf(criterion.measure)?.choices ?? []))

function addCriterion(measure: string) {
  const chosen = byKey.value.get(measure)
  if (!chosen) return
  const preferred = preferenceOf(measure)
  const begun: Criterion = {
    measure,
    better: chosen.better ?? 'low',
    weight: 1,
    order: preferred?.order ?? [],
    ...(measure === 'by_hand' ? { name: 'construction' } : {}),
    ...(preferred?.order.length ? { name: `${chosen.title}, own preference` } : {}),
  }
  void guarded(() => props.change((now) => ({ ...now, criteria: [...(now.criteria ?? []), begun] })))
}

/** A requirement that asks for nothing yet is only a draft: the use does not hold it. */
const draft = ref<Requirement | null>(null)
function addRequirement(measure: string) {
  if (byKey.value.has(measure)) draft.value = { measure, at_least: null, at_most: null, one_of: [] }
}
async function setRequirement(index: number, changes: Partial<Requirement>) {
  if (index < requirements.value.length) return ofRequirement(index, (item) => ({ ...item, ...changes }))
  const made = { ...draft.value!, ...changes }
  if (made.at_least == null && made.at_most == null && !made.one_of?.length) return
  await props.change((now) => ({ ...now, requirements: [...(now.requirements ?? []), made] }))
  draft.value = null
}
const lines = computed(() => [...requirements.value, ...(draft.value ? [draft.value] : [])])

/** A word may be asked for by its beginning. */
const isAsked = (list: readonly string[] | undefined, word: string) => (list ?? []).some((asked) => word.startsWith(asked))
function toggled(list: readonly string[] | undefined, word: string): string[] {
  return isAsked(list, word) ? list!.filter((asked) => !word.startsWith(asked)) : [...(list ?? []), word]
}

/** A requirement begins as its measure is called in full. */
function measureOf(key: string): Measure | undefined {
  return byKey.value.get(key) ?? props.measures.find((measure) => !measure.is_number && measure.key.startsWith(`${key}_`))
}
const unit = (measure: Measure | undefined) => measure?.[preferences.family].symbol ?? ''
const titleOf = (criterion: { measure: string; name?: string | null }) => criterion.name || byKey.value.get(criterion.measure)?.title || criterion.measure
/** End points that are not stated, as the filters have them. */
function taken(index: number, end: 'best' | 'worst'): string {
  const criterion = props.judged?.criteria[index]
  const value = criterion?.measure === criteria.value[index]?.measure ? criterion?.[end] : null
  return value == null ? '' : String(Number(inUnit(value, criterion![preferences.family]).toPrecision(3)))
}

const strikingAt = ref<number | null>(null)
const reason = ref('')
async function strike(index: number) {
  if (await guarded(() => withCriterion(index, { struck: reason.value.trim() }))) {
    strikingAt.value = null
    reason.value = ''
  }
}
/** Whose order the answer takes. */
const rankedBy = [{ value: '', label: 'weighted score where weights differ, else pair wins' }, ...Object.entries(METHODS).map(([value, label]) => ({ value, label }))]
const notAsked = ref(false)
const whyNot = ref('')
async function leaveBypassOut() {
  if (await set({ bypass_not_asked: whyNot.value.trim() })) {
    notAsked.value = false
    whyNot.value = ''
  }
}
</script>

<template>
  <div class="setup stack small">
    <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
    <div class="points row wrap">
      <label class="name">called <input :value="use.name" @change="set({ name: ($event.target as HTMLInputElement).value.trim() })" /></label>
      <span v-for="point in POINTS" :key="point.title" class="point">
        {{ point.title }} point: oil at
        <MeasureNumber measure="temperature_c" :value="use[point.temperature]" :units="TEMPERATURE!" :label="`Oil temperature of the ${point.title} point, ${degrees}`" :take="setPoint(point.temperature)" />
        {{ degrees }},
        <MeasureNumber measure="speed_rpm" :value="use[point.speed]" :units="BARE" :label="`Engine speed of the ${point.title} point, rpm`" :take="setPoint(point.speed)" />
        rpm
      </span>
      <label v-if="tiers.length || use.tier" class="point">
        compare
        <ChoiceField
          :model-value="use.tier ?? ''"
          :options="[{ value: '', label: 'all filters' }, ...tiers.map((tier) => ({ value: tier, label: `only tier ${tier}` }))]"
          label="Which filters are compared"
          @update:model-value="set({ tier: $event || null })"
        />
      </label>
    </div>

    <div class="points row wrap">
      <span class="point">
        changed every
        <MeasureNumber measure="interval_km" :value="use.interval_km" :units="DISTANCE!" :label="`Change interval, ${distance}`" :take="(value) => change((now) => ({ ...now, interval_km: value }))" />
        {{ distance }}, or
        <MeasureNumber measure="interval_h" :value="use.interval_h" :units="BARE" label="Change interval, h" :take="(value) => change((now) => ({ ...now, interval_h: value }))" />
        h
      </span>
      <label class="point">
        ranked by
        <ChoiceField :model-value="use.ranked_by ?? ''" :options="rankedBy" label="Ranked by" @update:model-value="set({ ranked_by: ($event || null) as typeof use.ranked_by })" />
      </label>
      <label v-if="shops.length || use.shop" class="point">
        prices
        <ChoiceField :model-value="use.shop ?? ''" :options="[{ value: '', label: 'the cheapest offer' }, ...shops.map((shop) => ({ value: shop, label: `of ${shop}` }))]" label="Whose offers count" @update:model-value="set({ shop: $event || null })" />
      </label>
    </div>
    <table aria-label="Criteria">
      <thead>
        <tr>
          <th scope="col">criterion</th>
          <th scope="col">better</th>
          <th scope="col">weight</th>
          <th scope="col">worst (0 points)</th>
          <th scope="col">best (100 points)</th>
          <th scope="col">unit</th>
          <th scope="col"><span class="unseen">left out, removed</span></th>
        </tr>
      </thead>
      <tbody v-for="(item, i) in criteria" :key="lineKeys(criteria)[i]" :class="{ struck: item.struck }" :data-criterion="item.measure">
        <tr>
          <th scope="row">
            <input
              v-if="isOrder(item)"
              :value="titleOf(item)"
              aria-label="What is put in order by hand"
              @change="guarded(() => withCriterion(i, { name: ($event.target as HTMLInputElement).value.trim() }))"
            />
            <template v-else>{{ titleOf(item) }}</template>
          </th>
          <td>
            <button
              v-if="!isOrder(item)"
              type="button"
              class="tool"
              :aria-label="`${titleOf(item)}: ${item.better === 'low' ? 'less' : 'more'} is better; turn it round`"
              @click="guarded(() => withCriterion(i, { better: item.better === 'low' ? 'high' : 'low', best: item.worst, worst: item.best }))"
            >
              {{ item.better === 'low' ? 'less' : 'more' }}
            </button>
            <span v-else class="soft">first place</span>
          </td>
          <td><MeasureNumber measure="weight" :value="item.weight ?? 1" :units="BARE" :label="`Weight of ${titleOf(item)}`" :take="taker(i, (value) => ({ weight: value ?? 1 }))" /></td>
          <td v-for="end in ['worst', 'best'] as const" :key="end">
            <MeasureNumber
              :measure="item.measure"
              :value="item[end]"
              :units="byKey.get(item.measure) ?? BARE"
              :label="`${end === 'best' ? 'Best' : 'Worst'} end point of ${titleOf(item)}${unit(byKey.get(item.measure)) ? `, ${unit(byKey.get(item.measure))}` : ''}`"
              :placeholder="taken(i, end)"
              :take="taker(i, (value) => ({ [end]: value }))"
            />
          </td>
          <td>{{ unit(byKey.get(item.measure)) }}</td>
          <td class="acts nowrap">
            <button v-if="item.struck" type="button" class="tool" @click="guarded(() => withCriterion(i, { struck: null }))">count it again</button>
            <button v-else type="button" class="tool" :aria-expanded="strikingAt === i" @click="strikingAt = strikingAt === i ? null : i">leave out …</button>
            <button type="button" class="tool" :aria-label="`Remove ${titleOf(item)}`" @click="guarded(() => ofCriterion(i, () => null))">remove</button>
          </td>
        </tr>
        <tr v-if="item.struck || strikingAt === i || isOrder(item)" class="under">
          <td colspan="7">
            <span v-if="item.struck">left out: {{ item.struck }}</span>
            <form v-else-if="strikingAt === i" :data-unsaved="reason.trim() ? 'reason' : undefined" @submit.prevent="strike(i)">
              <label>why it does not count here <input v-model="reason" class="long" autocomplete="off" /></label>
              <button type="submit" class="tool">leave it out</button>
            </form>
            <HandOrder v-if="isOrder(item)" :order="item.order ?? []" :labels="orderEntries(item)" :name="titleOf(item)" :take="(order) => guarded(() => withCriterion(i, { order }))" />
          </td>
        </tr>
      </tbody>
    </table>
    <p class="soft fine row flush">
      <AddChoice :options="numberOptions" searched label="Add a criterion" @add="addCriterion" />
      End points that are not stated are those of the filters compared, shown in grey: a first look that moves with every filter. State them to make a score of its own.
    </p>

    <table aria-label="Requirements">
      <thead>
        <tr>
          <th scope="col">requirement</th>
          <th scope="col">at least</th>
          <th scope="col">at most</th>
          <th scope="col">unit, or what will do</th>
          <th scope="col"><span class="unseen">removed</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(line, i) in lines" :key="lineKeys(lines)[i]" :data-requirement="line.measure">
          <th scope="row">{{ measureOf(line.measure)?.title ?? line.measure }}</th>
          <template v-if="measureOf(line.measure)?.is_number !== false">
            <td v-for="end in ['at_least', 'at_most'] as const" :key="end">
              <MeasureNumber
                :measure="line.measure"
                :value="line[end]"
                :units="byKey.get(line.measure) ?? BARE"
                :label="`${titleOf(line)}, ${end === 'at_least' ? 'at least' : 'at most'}`"
                :take="(value) => setRequirement(i, { [end]: value })"
              />
            </td>
            <td>{{ unit(byKey.get(line.measure)) }}</td>
          </template>
          <td v-else colspan="3" class="words">
            <label v-for="word in measureOf(line.measure)!.choices" :key="word">
              <input type="checkbox" :checked="isAsked(line.one_of, word)" @change="guarded(() => setRequirement(i, { one_of: toggled(line.one_of, word) }))" />
              {{ word }}
            </label>
          </td>
          <td class="acts nowrap">
            <button type="button" class="tool" :aria-label="`Remove the requirement on ${measureOf(line.measure)?.title}`" @click="i < requirements.length ? guarded(() => ofRequirement(i, () => null)) : (draft = null)">remove</button>
          </td>
        </tr>
        <tr>
          <th scope="row">a bypass valve that opens where the engine needs it</th>
          <td colspan="3">
            <template v-if="use.bypass_not_asked">not asked: {{ use.bypass_not_asked }}</template>
            <form v-else-if="notAsked" :data-unsaved="whyNot.trim() ? 'reason' : undefined" @submit.prevent="leaveBypassOut">
              <label>why it is not asked here <input v-model="whyNot" class="long" autocomplete="off" /></label>
              <button type="submit" class="tool">do not ask it</button>
            </form>
            <span v-else class="soft">asked of every use: its opening pressure surely below the stated collapse pressure</span>
          </td>
          <td class="acts nowrap">
            <button v-if="use.bypass_not_asked" type="button" class="tool" @click="set({ bypass_not_asked: null })">ask it again</button>
            <button v-else type="button" class="tool" :aria-expanded="notAsked" @click="notAsked = !notAsked">leave out …</button>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="soft fine row flush">
      <AddChoice :options="requirementOptions" searched label="Add a requirement" @add="addRequirement" />
      Decision rule: met where the value meets it with its whole 95 % interval, failed where no part of the interval does, open in between.
    </p>
  </div>
</template>

<style scoped>
.setup {
  gap: 0.5rem;
}
.points {
  gap: 0.4rem 1.4rem;
}
.point {
  display: inline-flex;
  align-items: center;
  gap: 0.3rem;
}
.name input {
  width: 9rem;
}
th {
  font-weight: 400;
}
td,
th {
  padding: 0.14rem 0.7rem 0.14rem 0;
  border-bottom: 1px solid var(--line);
}
.under td {
  border-bottom: 1px solid var(--line);
  padding-left: 1rem;
}
.struck th {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.acts .tool {
  margin-right: 0.3rem;
}
.words label {
  margin-right: 0.9rem;
}
.long {
  width: 22rem;
  max-width: 100%;
}
.fine {
  gap: 0.8rem;
}
</style>
