/** Everything that can be found or done here: whoever offers it registers it, and the box that finds things lists it. */
import { computed, onBeforeUnmount, onMounted, ref, shallowReactive } from 'vue'
import type { Found } from './search'

type Action = Omit<Found, 'kind'>

const registered = shallowReactive(new Set<() => readonly Found[]>())

/** Everything that can be found in the views that are open, actions first. */
export const findable = computed(() => {
  const all = [...registered].flatMap((item) => item())
  const isAction = (found: Found) => found.kind === 'action'
  return [...all.filter(isAction), ...all.filter((item) => !isAction(item))]
})

/** Whether the box that finds things is open. */
export const findOpen = ref(false)

/** Register what a view offers, for as long as it is there. */
export function useFindable(list: () => readonly Found[]): void {
  onMounted(() => registered.add(list))
  onBeforeUnmount(() => registered.delete(list))
}

/** Register what a view can do. */
export function useActions(list: () => readonly Action[]): void {
  useFindable(() => list().map((action) => ({ ...action, kind: 'action' })))
}
