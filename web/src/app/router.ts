import { createRouter, createWebHistory, type RouteLocation } from 'vue-router'
import BenchView from '@/bench/BenchView.vue'
import EfficiencyView from '@/efficiency/EfficiencyView.vue'
import EngineView from '@/circuit/EngineView.vue'
import BeforeCutView from '@/bench/BeforeCutView.vue'
import ShortSheetView from '@/bench/ShortSheetView.vue'
import IntakeView from '@/bench/IntakeView.vue'
import ReadingTableView from '@/bench/ReadingTableView.vue'
import OperatingMapView from '@/maps/OperatingMapView.vue'
import ComparisonView from '@/comparison/ComparisonView.vue'
import SamePartView from '@/comparison/SamePartView.vue'
import PreferencesView from '@/uses/PreferencesView.vue'
import ReportView from '@/report/ReportView.vue'
import SheetView from '@/uses/SheetView.vue'
import SumsView from '@/comparison/SumsView.vue'
import VerdictView from '@/uses/VerdictView.vue'
import StartView from '@/starts/StartView.vue'
import BackupsView from '@/upkeep/BackupsView.vue'
import StudiesView from '@/study/StudiesView.vue'
import StudyView from '@/study/StudyView.vue'
import WorkingView from '@/results/WorkingView.vue'
import { BENCH_STAGES } from '@/sample/stations'

/** A numeric parameter of the route. */
function numbers(names: readonly string[]) {
  return (route: { params: Record<string, string | string[]> }) =>
    Object.fromEntries(names.map((name) => [name, Number(route.params[name])]))
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'studies', component: StudiesView },
    { path: '/preferences', name: 'preferences', component: PreferencesView },
    { path: '/backups', name: 'backups', component: BackupsView },
    {
      path: '/studies/:studyId(\\d+)/samples/:sampleId(\\d+)',
      component: StudyView,
      props: numbers(['studyId', 'sampleId']),
      children: [
        { path: 'intake', name: 'intake', meta: { bench: true }, component: IntakeView, props: numbers(['sampleId']) },
        { path: 'readings-table', name: 'readings-table', meta: { pageOf: 'intake' }, component: ReadingTableView, props: numbers(['studyId', 'sampleId']) },
        { path: 'short', name: 'short', meta: { bench: true }, component: ShortSheetView, props: numbers(['sampleId']) },
        ...BENCH_STAGES.map((stage) => ({
          path: stage,
          name: stage,
          meta: { bench: true },
          component: BenchView,
          props: (route: RouteLocation) => ({ ...numbers(['sampleId'])(route), stage }),
        })),
        { path: 'cut', name: 'cut', meta: { bench: true }, component: BeforeCutView, props: numbers(['sampleId']) },
        {
          path: 'working/:result',
          name: 'working',
          component: WorkingView,
          props: (route: RouteLocation) => ({ ...numbers(['sampleId'])(route), result: route.params.result }),
        },
        { path: 'efficiency', name: 'efficiency', meta: { bench: true }, component: EfficiencyView, props: numbers(['sampleId']) },
        { path: 'engine', name: 'engine', meta: { bench: true }, component: EngineView, props: numbers(['sampleId']) },
        { path: 'map', name: 'map', component: OperatingMapView, props: numbers(['sampleId']) },
        { path: 'comparison', name: 'comparison', component: ComparisonView, props: numbers(['studyId', 'sampleId']) },
        { path: 'sheet', name: 'sheet', meta: { pageOf: 'comparison' }, component: SheetView, props: numbers(['studyId', 'sampleId']) },
        { path: 'verdict', name: 'verdict', meta: { pageOf: 'comparison' }, component: VerdictView, props: numbers(['studyId', 'sampleId']) },
        { path: 'same-part', name: 'same-part', meta: { pageOf: 'comparison' }, component: SamePartView, props: numbers(['studyId', 'sampleId']) },
        { path: 'sums', name: 'sums', meta: { pageOf: 'comparison' }, component: SumsView, props: numbers(['studyId', 'sampleId']) },
        { path: 'start', name: 'start', meta: { bench: true }, component: StartView, props: numbers(['studyId', 'sampleId']) },
        { path: 'report', name: 'report', component: ReportView, props: numbers(['studyId', 'sampleId']) },
        { path: '', redirect: { name: 'outside' } },
      ],
    },
    { path: '/:rest(.*)', redirect: { name: 'studies' } },
  ],
})
