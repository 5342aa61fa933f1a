import { createRouter, createWebHistory, type RouteLocation } from 'vue-router'
import { catalogue } from '@/catalogue/catalogue'
import { savesData } from '@/shared/savesData'
import { enterTyped } from '@/shared/useTyped'

/** Views at which the hand types: they come with the study, so that a station is there as soon as its key is pressed. */
const bench = {
  intake: () => import('@/bench/IntakeView.vue'),
  shortSheet: () => import('@/bench/ShortSheetView.vue'),
  bench: () => import('@/bench/BenchView.vue'),
  beforeCut: () => import('@/bench/BeforeCutView.vue'),
}
const pages = {
  efficiency: () => import('@/efficiency/EfficiencyView.vue'),
  engine: () => import('@/circuit/EngineView.vue'),
  readingTable: () => import('@/bench/ReadingTableView.vue'),
  operatingMap: () => import('@/maps/OperatingMapView.vue'),
  comparison: () => import('@/comparison/ComparisonView.vue'),
  samePart: () => import('@/comparison/SamePartView.vue'),
  preferences: () => import('@/uses/PreferencesView.vue'),
  report: () => import('@/report/ReportView.vue'),
  sheet: () => import('@/uses/SheetView.vue'),
  sums: () => import('@/comparison/SumsView.vue'),
  verdict: () => import('@/uses/VerdictView.vue'),
  start: () => import('@/starts/StartView.vue'),
  about: () => import('@/upkeep/AboutView.vue'),
  backups: () => import('@/upkeep/BackupsView.vue'),
  studies: () => import('@/study/StudiesView.vue'),
  working: () => import('@/results/WorkingView.vue'),
}
const studyView = () => import('@/study/StudyView.vue')
const studyWithBench = () => Promise.all([studyView(), ...Object.values(bench).map((load) => load())]).then(([view]) => view)

/**
 * Fetch every view ahead, one after the other while the hand rests, unless the browser is to save data; one that does not
 * come is asked for when it is opened.
 */
export async function fetchAhead(): Promise<void> {
  if (savesData()) return
  for (const load of [studyWithBench, ...Object.values(pages)]) {
    await new Promise((resolve) => requestIdleCallback(resolve, { timeout: 2000 }))
    await load().catch(() => undefined)
  }
}

/** A numeric parameter of the route. */
function numbers(names: readonly string[]) {
  return (route: { params: Record<string, string | string[]> }) =>
    Object.fromEntries(names.map((name) => [name, Number(route.params[name])]))
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'studies', component: pages.studies },
    { path: '/preferences', name: 'preferences', component: pages.preferences },
    { path: '/backups', name: 'backups', component: pages.backups },
    { path: '/about', name: 'about', component: pages.about },
    {
      path: '/studies/:studyId(\\d+)/samples/:sampleId(\\d+)',
      name: 'study',
      component: studyWithBench,
      props: numbers(['studyId', 'sampleId']),
      children: [
        { path: 'intake', name: 'intake', meta: { bench: true }, component: bench.intake, props: numbers(['sampleId']) },
        { path: 'readings-table', name: 'readings-table', meta: { pageOf: 'intake' }, component: pages.readingTable, props: numbers(['studyId', 'sampleId']) },
        { path: 'short', name: 'short', meta: { bench: true }, component: bench.shortSheet, props: numbers(['sampleId']) },
        { path: 'cut', name: 'cut', meta: { bench: true }, component: bench.beforeCut, props: numbers(['sampleId']) },
        {
          path: 'working/:result',
          name: 'working',
          component: pages.working,
          props: (route: RouteLocation) => ({ ...numbers(['sampleId'])(route), result: route.params.result }),
        },
        { path: 'efficiency', name: 'efficiency', meta: { bench: true }, component: pages.efficiency, props: numbers(['sampleId']) },
        { path: 'engine', name: 'engine', meta: { bench: true }, component: pages.engine, props: numbers(['sampleId']) },
        { path: 'map', name: 'map', component: pages.operatingMap, props: numbers(['sampleId']) },
        { path: 'comparison', name: 'comparison', component: pages.comparison, props: numbers(['studyId', 'sampleId']) },
        { path: 'sheet', name: 'sheet', meta: { pageOf: 'comparison' }, component: pages.sheet, props: numbers(['studyId', 'sampleId']) },
        { path: 'verdict', name: 'verdict', meta: { pageOf: 'comparison' }, component: pages.verdict, props: numbers(['studyId', 'sampleId']) },
        { path: 'same-part', name: 'same-part', meta: { pageOf: 'comparison' }, component: pages.samePart, props: numbers(['studyId', 'sampleId']) },
        { path: 'sums', name: 'sums', meta: { pageOf: 'comparison' }, component: pages.sums, props: numbers(['studyId', 'sampleId']) },
        { path: 'start', name: 'start', meta: { bench: true }, component: pages.start, props: numbers(['studyId', 'sampleId']) },
        { path: 'report', name: 'report', component: pages.report, props: numbers(['studyId', 'sampleId']) },
        { path: '', name: 'study-begins', redirect: { name: 'outside' } },
      ],
    },
    { path: '/:rest(.*)', redirect: { name: 'studies' } },
  ],
})

router.beforeEach((to, from) => {
  if (to.path !== from.path) enterTyped()
})

/** Add the stations at which readings of a stage are typed, once the catalogue is there. */
export function addStages(): void {
  for (const { name } of catalogue().stations.filter((station) => station.is_stage))
    router.addRoute('study', {
      path: name,
      name,
      meta: { bench: true },
      component: bench.bench,
      props: (route: RouteLocation) => ({ ...numbers(['sampleId'])(route), stage: name }),
    })
}
