<script setup lang="ts">
/** One stage of the bench: readings and what is seen, part by part, everything by keyboard, beside the drawing. */
import { computed, ref, toRef } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '@/api/client'
import ObservationField from '@/entry/ObservationField.vue'
import EfficiencyPanel from '@/figures/EfficiencyPanel.vue'
import CopiedMark from '@/entry/CopiedMark.vue'
import DetailFields from '@/entry/DetailFields.vue'
import HoleGroupBar from '@/entry/HoleGroupBar.vue'
import HolesEntry from '@/entry/HolesEntry.vue'
import ServedDrawing from '@/figures/ServedDrawing.vue'
import PlateFigures from '@/figures/PlateFigures.vue'
import PackPanel from '@/figures/PackPanel.vue'
import ReadingField from '@/entry/ReadingField.vue'
import { waitingWords } from '@/entry/waiting'
import SectionDrawing from '@/figures/SectionDrawing.vue'
import StripPanel from '@/figures/StripPanel.vue'
import TrayPanel from '@/figures/TrayPanel.vue'
import ValvePanel from '@/figures/ValvePanel.vue'
import { catalogue, details, observations } from '@/catalogue/catalogue'
import { listedKey, useKeys } from '@/shared/useKeys'
import { useFigures } from '@/figures/useFigures'
import { thingsOfPart } from '@/sample/copies'
import { useBenchChanges, useSheet } from '@/sample/useSheet'
import { useBenchStops } from '@/sample/useBenchStops'
import { refusedAt, stationOfKey } from '@/sample/stations'
import { usePreferences } from '@/shared/preferences'

const props = defineProps<{ sampleId: number; stage: string }>()
const router = useRouter()
const preferences = usePreferences()
const sampleId = toRef(props, 'sampleId')
const sheet = useSheet(sampleId)
const changes = useBenchChanges(sampleId)
const lit = ref('')

const parts = computed(() => (sheet.data.value?.parts ?? []).filter((part) => part.stage === props.stage))
const detailsHere = computed(() => [...details().values()].filter((detail) => detail.stage === props.stage))
const hasPlate = computed(() => props.stage === 'outside')
const drawingInHand = computed(
  () => parts.value.flatMap((part) => part.fields).find((field) => field.key === lit.value)?.drawing ?? '',
)
/** The section is shown instead of the plate or the pleat pack while one of its own dimensions is being typed. */
const showsSection = computed(() => props.stage === 'opened' || drawingInHand.value === 'section')
const hasFigures = computed(() => !hasPlate.value || showsSection.value)
const figures = useFigures(sampleId, hasFigures)
const partTitles = computed(() =>
  Object.fromEntries(catalogue().parts.map((part) => [part.key, part.title])),
)
const placeOfBypass = computed(
  () => parts.value.flatMap((part) => part.observations).find((item) => item.key === 'bypass.location')?.value ?? null,
)
const placement = computed(() => (props.stage === 'outside' ? 'inlet' : props.stage === 'element' ? 'centre_tube' : null))
const generalWarnings = computed(() => {
  const placed = new Set(
    (sheet.data.value?.parts ?? []).flatMap((part) =>
      part.fields.flatMap((field) => field.warnings.map((warning) => warning.message)),
    ),
  )
  const drawn = new Set(hasPlate.value ? sheet.data.value?.plate.drawing.problems : [])
  return (sheet.data.value?.analysis.warnings ?? []).filter(
    ({ message, where }) =>
      !placed.has(message) && !drawn.has(message) && stationOfKey(where, sheet.data.value) === props.stage,
  )
})

const waits = computed(() => waitingWords(parts.value, refusedAt(props.sampleId, sheet.data.value).filter((at) => at === props.stage).length))

/** The line that adds holes comes after the plate or the centre tube and the groups it has; it is not drawn anew as they come. */
const items = computed(() => {
  const after = placement.value === 'inlet' ? 'plate' : placement.value === 'centre_tube' ? 'tube' : ''
  const last = parts.value.reduce((lastBefore, part, i) => (part.key === after || part.hole_group !== null ? i : lastBefore), -1)
  return parts.value.flatMap((part, i) => {
    const here: { key: string; part: Schemas['PartOut'] | null }[] = [{ key: part.key, part }]
    return after && i === last ? [...here, { key: 'holes', part: null }] : here
  })
})

function partTitle(part: Schemas['PartOut']): string {
  const same = parts.value.filter((item) => item.hole_group && item.title === part.title)
  return same.length > 1 ? `${part.title} ${same.indexOf(part) + 1}` : part.title
}

/** Open the reading that was chosen in the drawing, on this stage or on its own. */
function pick(key: string) {
  if (stops.focusKey(key)) return
  const inside = parts.value.find((part) => part.key === key)?.fields[0]?.key
  if (inside) stops.focusKey(inside)
  else void router.push({ name: stationOfKey(key, sheet.data.value), query: { field: key } })
}

useKeys([
  listedKey('Enter, Tab', 'take the reading and go to the next (Shift: the one before)'),
  listedKey('↓ ↑', 'next, the one before'),
  listedKey('F2', 'put what was likely meant'),
  listedKey('F4', 'confirm the reading that is questioned'),
  listedKey('Alt+P, I, N, S', 'provenance, instrument, note, or why there is no value'),
  listedKey('Backspace', 'in an empty field: go to its readings (← → between them, Esc back)'),
  listedKey('Delete', 'on a reading: set it aside; Enter on one set aside uses it again'),
  listedKey('1 … 9, ← →', 'on pictured choices: choose; Enter goes on, Delete takes it back, v shows what practitioners hold'),
  listedKey('Esc', 'empty the field'),
])

const { root: station, stops, next, back } = useBenchStops({
  ready: () => sheet.isSuccess.value && props.stage,
  begin: (stops) => stops.enter(station.value?.querySelector<HTMLElement>('[data-answered="false"]') ?? stops.stops()[0]),
})
/** How every field knows its sample, and where the hand goes from it. */
const common = computed(() => ({ sampleId: props.sampleId, family: preferences.family, changes, onNext: next, onPrevious: back }))
</script>

<template>
  <div ref="root" class="bench beside-drawing">
    <div class="sheet scrolls">
      <ul v-if="generalWarnings.length" class="note warnings small wrong">
        <li v-for="warning in generalWarnings" :key="warning.code + warning.where">{{ warning.message }}</li>
      </ul>
      <p v-if="waits" class="said-wrong note" role="status" data-waits>{{ waits }}</p>
      <p v-if="sheet.isPending.value" class="soft note">Fetching the sheet …</p>
      <template v-for="({ key, part }, i) in items" :key="key">
        <section v-if="part" :id="`part-${part.key}`" class="part card" :data-key="part.key">
          <h2>
            {{ partTitle(part) }}
            <CopiedMark :things="thingsOfPart(part)" :of="partTitle(part)" />
            <span v-if="i === 0 && part.fields.some((field) => field.whole_only)" class="soft legend fine">
              <span class="whole">◐</span> only on the uncut filter
            </span>
          </h2>
          <HoleGroupBar v-if="part.hole_group" :group="part.hole_group" :changes="changes" />
          <ReadingField
            v-for="(field, place) in part.fields"
            :key="field.key"
            :with-group="part.hole_group !== null && place === 0"
            :field="field"
            :hole-group-id="part.hole_group?.id"
            v-bind="common"
            @here="lit = field.key"
          />
          <template v-for="item in part.observations" :key="item.key">
            <ObservationField
              v-if="observations().get(item.key)"
              :sample-id="sampleId" :observation="observations().get(item.key)!"
              :value="item.value"
              :set="changes.setObservation"
              @next="next"
              @previous="back"
              @here="lit = item.key"
            />
          </template>
        </section>
        <section v-else class="part card">
          <HolesEntry
            :placement="placement!"
            :title="parts.some((part) => part.hole_group) ? 'More holes' : 'Holes'"
            :sample-id="sampleId"
            :family="preferences.family"
            :add="changes.addHoles"
            @next="next"
            @previous="back"
            @here="lit = `holes.${placement}`"
          />
        </section>
      </template>
      <section v-if="detailsHere.length && sheet.data.value" class="part details card">
        <DetailFields :sample-id="sampleId" :details="detailsHere" :texts="sheet.data.value.details" :numbers="sheet.data.value.detail_numbers" :family="preferences.family" :revisions="sheet.data.value.revisions" :set="changes.setDetail" @next="next" @previous="back" />
      </section>
    </div>
    <aside v-if="hasPlate && sheet.data.value" class="drawing stack" tabindex="0" aria-label="Plate from below">
      <SectionDrawing
        v-if="showsSection && figures.data.value"
        :section="figures.data.value.section"
        :lit="lit"
        :family="preferences.family"
        @pick="pick"
      />
      <ServedDrawing v-else :drawing="sheet.data.value.plate.drawing" :lit="lit" :family="preferences.family" class="plate picture" @pick="pick" />
      <p v-if="sheet.data.value.plate.drawing.note" class="soft dashes fine flush">{{ sheet.data.value.plate.drawing.note }}</p>
      <PlateFigures :plate="sheet.data.value.plate" :family="preferences.family" />
    </aside>
    <aside v-else-if="figures.data.value" class="drawing stack" tabindex="0" aria-label="Figures">
      <SectionDrawing
        v-if="showsSection && drawingInHand !== 'valve'"
        :section="figures.data.value.section"
        :lit="lit"
        :family="preferences.family"
        @pick="pick"
      />
      <template v-if="stage === 'opened'">
        <ValvePanel
          :valve="figures.data.value.valve"
          :family="preferences.family"
          :place="placeOfBypass"
          :lit="lit"
          @pick="pick"
        />
        <TrayPanel :tray="figures.data.value.tray" :strength="figures.data.value.strength" :parts="partTitles" :family="preferences.family" @pick="pick" />
      </template>
      <PackPanel
        v-else-if="stage === 'element' && !showsSection"
        :pack="figures.data.value.pack"
        :drawing="figures.data.value.pack_drawing"
        :curve="figures.data.value.pleat_curve"
        :lit="lit"
        :family="preferences.family"
        @pick="pick"
      />
      <template v-else-if="stage === 'media'">
        <StripPanel :strip="figures.data.value.strip" :drawing="figures.data.value.strip_drawing" :lit="lit" :family="preferences.family" @pick="pick" />
        <EfficiencyPanel :efficiency="figures.data.value.efficiency" />
      </template>
    </aside>
  </div>
</template>

<style scoped>
.sheet {
  padding: 0.7rem 0.8rem 4rem;
  scroll-behavior: auto;
}
.part {
  margin-bottom: 0.8rem;
  overflow: hidden;
}
.details {
  padding: 0.4rem 0.9rem;
}
.part h2 {
  padding: 0.45rem 0.9rem;
}
.legend {
  float: right;
  font-family: var(--body);
  font-weight: 400;
}
.whole {
  color: var(--amber-ink);
}
.note {
  margin: 0 0 0.8rem;
}
.warnings li::first-letter {
  text-transform: uppercase;
}
.drawing {
  gap: 0.3rem;
}
.picture {
  height: 17.5rem;
  flex: none;
}
.dashes {
  text-align: center;
}
</style>
