<script setup lang="ts">
/** The report: its parts in their order, the analyst's text between them, its pages as they will print, and what was issued. */
import { computed, nextTick, ref, toRef, watch } from 'vue'
import { useActions } from '@/shared/actions'
import { saveAddress } from '@/shared/download'
import { usePreferences } from '@/shared/preferences'
import SwitchButtons from '@/shared/SwitchButtons.vue'
import { bareKey, useKeys } from '@/shared/useKeys'
import { useRefusal } from '@/shared/useRefusal'
import IssuedList from './IssuedList.vue'
import KeptText from './KeptText.vue'
import PartList from './PartList.vue'
import ReportPages from './ReportPages.vue'
import { partsOf, toggled, useReport, type Part, type Plan } from './useReport'

const props = defineProps<{ studyId: number; sampleId: number }>()
const { report, pages, change, underWay, issue } = useReport(toRef(props, 'studyId'))
const { refused, guarded } = useRefusal()
const preferences = usePreferences()
const plan = computed(() => report.data.value?.plan)
const parts = computed(() => (plan.value && report.data.value ? partsOf(plan.value, report.data.value.sizes) : []))

const setPlan = (changed: Partial<Plan>) => guarded(() => change(changed))
const setParts = (next: Part[]) => setPlan({ parts: next })
const setWords = (name: 'title' | 'prepared_by' | 'prepared_for', text: string) => {
  const words = text.trim() || null
  if (words !== (plan.value?.[name] ?? null)) void setPlan({ [name]: words })
}
const HEADS = [
  { name: 'title', label: 'title' },
  { name: 'prepared_by', label: 'prepared by' },
  { name: 'prepared_for', label: 'prepared for' },
] as const
const PAPERS = [
  { label: 'A4', value: 'a4' as const },
  { label: 'Letter', value: 'letter' as const },
]
const UNITS = [
  { label: 'Metric', value: 'metric' as const },
  { label: 'Inch', value: 'inch' as const },
]
const size = computed({ get: () => plan.value?.size ?? 'short', set: (value) => void setPlan({ size: value }) })
const sizes = computed(() => report.data.value?.sizes.map((item) => ({ label: item.title, value: item.key })) ?? [])
const paper = computed({ get: () => plan.value?.paper ?? 'a4', set: (value) => void setPlan({ paper: value === 'a4' ? null : value }) })
const units = computed({ get: () => plan.value?.units ?? 'metric', set: (value) => void setPlan({ units: value === 'metric' ? null : value }) })
/** Units the bench reads in: those of the head of the page. */
const bench = computed(() => preferences.family)
const hasSection = (key: string) => !plan.value?.sections.length || (plan.value.sections as string[]).includes(key)

/** Pages are those of the plan as it is: none is on its way. */
const isSettled = computed(() => !!pages.data.value && !pages.isFetching.value && !pages.isPlaceholderData.value)
const asked = ref(false)
const yes = ref<HTMLButtonElement>()
watch(() => pages.data.value?.key, () => (asked.value = false))
async function ask() {
  if (!isSettled.value) return
  asked.value = true
  await nextTick()
  yes.value?.focus()
}
const issuing = ref(false)
const issuedAs = ref({ key: '', words: '' })
async function issueNow() {
  if (issuing.value || !pages.data.value) return
  issuing.value = true
  const { key } = pages.data.value
  const before = report.data.value?.issued.map((item) => item.id) ?? []
  await guarded(async () => {
    const { id, number } = await issue(key)
    asked.value = false
    issuedAs.value = { key, words: before.includes(id) ? `These pages are report ${number} already: no second one was issued.` : `Issued as report ${number}.` }
  })
  issuing.value = false
}

const FILES: Readonly<Record<string, string>> = { pdf: 'PDF', html: 'HTML', xlsx: 'XLSX', csv: 'CSV of results', zip: 'whole study, ZIP' }
const address = (ending: string) => `/api/studies/${props.studyId}/report/files/${ending}`
useActions(() => [
  { title: 'Issue the report', words: ['sign', 'finish', 'number', 'print'], run: () => void ask() },
  ...(report.data.value?.endings ?? []).map((ending) => ({
    title: `Save the report as ${FILES[ending] ?? ending}`,
    words: ['export', 'download', 'file', ending],
    run: () => saveAddress(address(ending), ''),
  })),
])
useKeys([{ keys: 'i', does: 'issue the report that is looked at', matches: bareKey('i'), single: true, run: () => void ask() }])
</script>

<template>
  <div class="report view small">
    <aside class="plan scrolls" tabindex="0" role="region" aria-label="Plan of the report" :aria-busy="underWay > 0">
      <p v-if="report.error.value" class="said-wrong">{{ report.error.value.message }}</p>
      <template v-else-if="report.data.value && plan">
        <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
        <div v-for="head in HEADS" :key="head.name" class="words row wrap">
          <label :for="`report-${head.name}`">{{ head.label }}</label>
          <KeptText :id="`report-${head.name}`" :text="plan[head.name] ?? ''" :label="head.label" :placeholder="head.name === 'title' ? pages.data.value?.title : ''" @keep="setWords(head.name, $event)" />
        </div>
        <p class="switches"><SwitchButtons v-model="size" :options="sizes" label="Size of the report" small /></p>
        <p class="switches">
          <SwitchButtons v-model="paper" :options="PAPERS" label="Paper" small />
          <SwitchButtons v-model="units" :options="UNITS" label="Units of the report" small />
        </p>
        <h2 class="small">Parts</h2>
        <p v-if="size === 'card'" class="soft flush">A card is one page: the answer, bars, one table. Parts and own text stand in the short and the full report.</p>
        <PartList v-else :parts="parts" :offered="report.data.value.parts" :under-way="underWay > 0" @change="setParts" />
        <template v-if="size !== 'card' && parts.some((part) => part.part === 'filters')">
          <h2 class="small">Of each filter</h2>
          <p v-for="section in report.data.value.sections" :key="section.key" class="section flush">
            <label><input type="checkbox" :checked="hasSection(section.key)" :data-section="section.key" @change="setPlan({ sections: toggled(plan, section.key, report.data.value!.sections) })" /> {{ section.title }}</label>
          </p>
        </template>
        <h2 class="small">Take it away as a draft</h2>
        <p class="files wrap">
          <a v-for="ending in report.data.value.endings" :key="ending" class="tool" :href="address(ending)" download>{{ FILES[ending] ?? ending }}</a>
        </p>
        <h2 class="small">To print for the bench</h2>
        <p class="files wrap">
          <a class="tool" :href="`/api/studies/${studyId}/bench-sheets?family=${bench}`" download>measuring sheets</a>
          <a class="tool" :href="`/api/studies/${studyId}/part-labels`" download>part labels</a>
        </p>
        <IssuedList :issued="report.data.value.issued" :study-id="studyId" />
      </template>
    </aside>
    <section class="sheet fills scrolls" tabindex="0" role="region" aria-label="Pages">
      <header class="bar row spread">
        <p v-if="pages.error.value" class="said-wrong" role="alert">{{ pages.error.value.message }}</p>
        <p v-else-if="!pages.data.value" class="soft" role="status">Setting the pages. The first time, all that filters do is computed: up to half a minute.</p>
        <p v-else class="soft" role="status">
          <template v-if="isSettled">{{ pages.data.value.pages.length }} {{ pages.data.value.pages.length === 1 ? 'page' : 'pages' }}, {{ (pages.data.value.size_bytes / 1e6).toFixed(1) }} MB. {{ issuedAs.key === pages.data.value.key ? issuedAs.words : 'Draft, not issued.' }}</template>
          <template v-else>Setting the pages anew …</template>
        </p>
        <p class="issue row">
          <template v-if="asked">
            <span>Issued, it stays as it is for good, under a number of its own.</span>
            <button ref="yes" type="button" class="tool sure strong" :disabled="issuing || !isSettled" @click="issueNow">{{ issuing ? 'issuing …' : 'issue it' }}</button>
            <button type="button" class="tool" @click="asked = false">not yet</button>
          </template>
          <button v-else type="button" class="tool" :disabled="!isSettled" @click="ask">Issue this report …</button>
        </p>
      </header>
      <ReportPages v-if="pages.data.value" :preview="pages.data.value" :stale="!isSettled" />
    </section>
  </div>
</template>

<style scoped>
.report {
  height: 100%;
  display: flex;
  min-height: 0;
}
.plan {
  flex: 0 0 22rem;
  padding: 0.5rem 1rem 1rem;
  border-right: 1px solid var(--line);
}
.words {
  margin: 0.25rem 0;
}
.words label {
  flex: 0 0 5.6rem;
}
.words :deep(input) {
  flex: 1;
  min-width: 0;
}
.switches {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  margin: 0.5rem 0;
}
.section label {
  display: flex;
  align-items: center;
  gap: 0.45rem;
  min-height: 1.75rem;
}
.files {
  gap: 0.35rem;
}
.sheet {
  background: var(--ground);
}
.bar {
  position: sticky;
  top: 0;
  z-index: 1;
  gap: 1rem;
  min-height: 2.4rem;
  padding: 0.3rem 0.8rem;
  background: var(--paper);
  border-bottom: 1px solid var(--line);
  margin-bottom: 0.7rem;
}
.bar p {
  margin: 0;
}
.sure {
  border-color: var(--hand);
  color: var(--hand);
}
@media (max-width: 900px) {
  .report {
    flex-direction: column;
    overflow: auto;
  }
  .plan {
    flex: none;
    border-right: 0;
    overflow: visible;
  }
  .sheet {
    overflow: visible;
    flex: none;
  }
}
</style>
