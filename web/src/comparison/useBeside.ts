/** Samples of other studies that stand beside those of one: this window's own, no part of the study. */
import { useStorage } from '@vueuse/core'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'

export function useBeside(studyId: MaybeRefOrGetter<number>) {
  const stored = useStorage<Record<string, number[]>>('tabrel.beside', {}, sessionStorage)
  const key = () => String(toValue(studyId))
  const beside = computed(() => stored.value[key()] ?? [])
  const set = (ids: number[]) => (stored.value = { ...stored.value, [key()]: ids })
  return {
    beside,
    add: (id: number) => set([...beside.value.filter((item) => item !== id), id]),
    remove: (id: number) => set(beside.value.filter((item) => item !== id)),
    clear: () => set([]),
  }
}
