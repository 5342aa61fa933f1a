<script setup lang="ts">
/** Whether two filters are one part under two names: every pair, and one of them dimension by dimension. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, toRef } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { term } from '@/catalogue/catalogue'
import { signedNumber } from '@/shared/numbers'
import { usePreferences } from '@/shared/preferences'
import ComparisonPages from './ComparisonPages.vue'
import LotList from './LotList.vue'
import OtherSamples from './OtherSamples.vue'
import AllowanceBar from './AllowanceBar.vue'
import { useOtherSamples } from './useOtherSamples'

type Pair = Schemas['PairOut']
type Finding = Schemas['FindingOut']

const props = defineProps<{ studyId: number; sampleId: number }>()
const preferences = usePreferences()
const studyId = toRef(props, 'studyId')
const { otherSamples, add, clear } = useOtherSamples(studyId)
const adding = ref(false)
const parts = useQuery({
  queryKey: queryKeys.sameParts(studyId, otherSamples),
  queryFn: () =>
    unwrap(client.GET('/api/studies/{study_id}/same-part', { params: { path: { study_id: props.studyId }, query: { others: otherSamples.value } } })),
  placeholderData: keepPreviousData,
  retry: false,
})

const GROUPS = [
  { state: 'different', title: 'tells them apart' },
  { state: 'same', title: 'the same' },
  { state: 'cannot_tell', title: 'cannot tell' },
] as const

const pairs = computed(() => parts.data.value?.pairs ?? [])
const labels = computed(() => parts.data.value?.labels ?? [])
const chosen = ref<{ first: string; second: string }>()

function pairOf(label: string, other: string): Pair | undefined {
  return pairs.value.find((pair) => (pair.first_label === label && pair.second_label === other) || (pair.first_label === other && pair.second_label === label))
}
const pair = computed(
  () =>
    (chosen.value && pairOf(chosen.value.first, chosen.value.second)) ??
    pairs.value.find((pair) => pair.part_verdict === 'nothing_tells_them_apart') ??
    pairs.value[0],
)

function shownPairs(pair: Pair, state: Finding['finding']): Finding[] {
  return pair.findings.filter((finding) => finding.finding === state)
}

/** A cell of the grid in words. */
function cell(pair: Pair): string {
  if (pair.part_verdict === 'different') return `${shownPairs(pair, 'different').length} differ`
  return pair.part_verdict === 'nothing_tells_them_apart' ? 'nothing differs' : 'cannot tell'
}

const sentence = computed(() => {
  const chosenPair = pair.value
  if (!chosenPair) return ''
  const same = shownPairs(chosenPair, 'same').length
  const lacking = chosenPair.not_looked_at.length ? ` Of ${chosenPair.not_looked_at.join(', ')} nothing was found the same.` : ''
  if (chosenPair.part_verdict === 'nothing_tells_them_apart') return `${same} findings are the same and none is different, media, pleats, tube and valve among them.`
  if (chosenPair.part_verdict === 'different') {
    const lots = chosenPair.is_one_part_number ? ' Both carry one part number: the lots differ.' : ''
    return `${shownPairs(chosenPair, 'different').length} findings tell them apart, ${same} are the same.${lots}`
  }
  const few = same < (parts.data.value?.enough_same ?? 0) ? ` Only ${same} findings are the same: at least ${parts.data.value?.enough_same} must be.` : ''
  return `Nothing differs, and too little was looked at to say more.${few}${lacking}`
})

function shown(side: Schemas['InBothOut'] | null): string {
  return side === null ? 'not looked at' : side[preferences.family]
}

function difference(finding: Finding): string {
  const percent = finding.difference_percent
  if (percent === null) return ''
  return `${signedNumber(Number(percent.toFixed(Math.abs(percent) < 10 ? 1 : 0)))} %`
}
</script>

<template>
  <div class="comparison-page view">
    <header class="head">
      <ComparisonPages />
      <p class="soft">One part under two names? What is measured on both, with its uncertainty and what two of one kind may differ by.</p>
      <button type="button" class="tool" :aria-expanded="adding" @click="adding = !adding">other studies …</button>
      <button v-if="otherSamples.length" type="button" class="tool" @click="clear">this study only</button>
    </header>
    <OtherSamples v-if="adding" :study-id="studyId" :taken="otherSamples" @add="add" />
    <p v-if="parts.error.value" class="said-wrong">{{ parts.error.value.message }}</p>
    <p v-else-if="!parts.data.value" class="soft">Comparing the parts …</p>
    <p v-else-if="labels.length < 2" class="soft">There is one filter only: add another one to compare it with.</p>
    <div v-else class="both fills">
      <div class="left scrolls">
      <table class="grid small" aria-label="Every pair">
        <thead class="filters">
          <tr>
            <td />
            <th v-for="label in labels.slice(0, -1)" :key="label" scope="col">{{ label }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in labels.slice(1)" :key="row">
            <th scope="row">{{ row }}</th>
            <td v-for="column in labels.slice(0, i + 1)" :key="column">
              <button
                v-if="pairOf(column, row)"
                type="button"
                :class="['cell', pairOf(column, row)!.part_verdict, { on: pair === pairOf(column, row) }]"
                :aria-pressed="pair === pairOf(column, row)"
                :aria-label="`${column} and ${row}: ${cell(pairOf(column, row)!)}`"
                :data-pair="`${column}/${row}`"
                @click="chosen = { first: column, second: row }"
              >
                {{ cell(pairOf(column, row)!) }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="soft note fine">
        <strong>Different</strong>: farther apart than the uncertainty of both and what two of one kind may differ by (the band).
        <strong>Same</strong>: within it, and read finely enough to have told. Damage, age, workmanship and what a hand feels do not
        count, nor what was copied, published or assumed, nor masses of a used filter.
      </p>
      <LotList :study-id="studyId" />
      </div>
      <section v-if="pair" class="one stack fills" :aria-label="`${pair.first_label} and ${pair.second_label}`">
        <h2 data-part="verdict" :class="pair.part_verdict">{{ pair.first_label }} and {{ pair.second_label }}: {{ term('part_verdict', pair.part_verdict) }}</h2>
        <p class="soft" data-part="sentence">{{ sentence }}</p>
        <div class="scroll fills scrolls" tabindex="0" role="region" aria-label="Dimension by dimension">
          <table class="findings small wide">
            <thead>
              <tr>
                <th scope="col"><span class="unseen">dimension or attribute</span></th>
                <th scope="col">{{ pair.first_label }}</th>
                <th scope="col">{{ pair.second_label }}</th>
                <th scope="col" class="number">difference</th>
                <th scope="col">may differ by</th>
              </tr>
            </thead>
            <tbody v-for="group in GROUPS" :key="group.state">
              <tr v-if="shownPairs(pair, group.state).length" class="group">
                <th colspan="5" scope="rowgroup">{{ group.title }} ({{ shownPairs(pair, group.state).length }})</th>
              </tr>
              <tr v-for="finding in shownPairs(pair, group.state)" :key="finding.key" :data-finding="finding.key">
                <th scope="row"><span class="soft">{{ finding.part }}</span> {{ finding.title }}</th>
                <td :class="{ soft: finding.of_first === null }">{{ shown(finding.of_first) }}</td>
                <td :class="{ soft: finding.of_second === null }">{{ shown(finding.of_second) }}</td>
                <td class="number">{{ difference(finding) }}</td>
                <td><AllowanceBar v-if="finding.difference_in_allowances !== null" :allowances="finding.difference_in_allowances" /></td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.both {
  display: flex;
  gap: 1.6rem;
}
.left {
  flex: 0 1 27rem;
}
.note {
  margin: 0.8rem 0.3rem;
  line-height: 1.45;
}
.note strong {
  font-weight: 600;
}
.grid {
  border-collapse: separate;
  border-spacing: 3px;
}
.grid th {
  padding: 0.1rem 0.3rem;
}
.cell {
  width: 100%;
  min-width: 4.6rem;
  padding: 0.45rem 0.3rem;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink-soft);
  font: inherit;
  cursor: pointer;
}
.cell.nothing_tells_them_apart {
  background: var(--amber-wash);
  color: var(--ink);
  font-weight: 600;
}
.cell.cannot_tell {
  border-style: dashed;
}
.cell.on {
  border-color: var(--hand);
  box-shadow: 0 0 0 1px var(--hand);
}
h2 {
  font-size: 1.05rem;
  margin: 0 0 0.2rem;
}
.one p {
  margin: 0 0 0.4rem;
  font-size: var(--small);
}
.scroll {
  border-top: 1px solid var(--line-strong);
}
.findings th {
  font-weight: 400;
}
.findings thead th {
  position: sticky;
  top: 0;
  background: var(--ground);
  color: var(--ink-soft);
  z-index: 1;
  white-space: nowrap;
}
.findings td,
.findings th {
  padding: 0.16rem 0.5rem 0.16rem 0;
  border-bottom: 1px solid var(--line);
}
.findings .group th {
  font-weight: 600;
  padding-top: 0.6rem;
}
.findings .number {
  text-align: right;
  padding-right: 0.9rem;
  white-space: nowrap;
}
</style>
