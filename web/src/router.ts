import { createRouter, createWebHistory } from 'vue-router'
import BenchView from './views/BenchView.vue'
import OperatingMapView from './views/OperatingMapView.vue'
import StudiesView from './views/StudiesView.vue'
import StudyView from './views/StudyView.vue'

/** A numeric parameter of the route. */
function numbers(names: readonly string[]) {
  return (route: { params: Record<string, string | string[]> }) =>
    Object.fromEntries(names.map((name) => [name, Number(route.params[name])]))
}

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'studies', component: StudiesView },
    {
      path: '/studies/:studyId(\\d+)/samples/:sampleId(\\d+)',
      component: StudyView,
      props: numbers(['studyId', 'sampleId']),
      children: [
        { path: 'bench', name: 'bench', component: BenchView, props: numbers(['sampleId']) },
        { path: 'map', name: 'map', component: OperatingMapView, props: numbers(['sampleId']) },
        { path: '', redirect: { name: 'bench' } },
      ],
    },
    { path: '/:rest(.*)', redirect: { name: 'studies' } },
  ],
})
