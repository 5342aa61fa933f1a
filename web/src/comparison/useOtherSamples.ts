/** Samples of other studies that stand beside those of one: this window's own, no part of the study. */
import { useStorage } from '@vueuse/core'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'

export function useOtherSamples(studyId: MaybeRefOrGetter<number>) {
  const stored = useStorage<Record<string, number[]>>('tabrel.others', {}, sessionStorage)
  const key = () => String(toValue(studyId))
  const otherSamples = computed(() => stored.value[key()] ?? [])
  const set = (ids: number[]) => (stored.value = { ...stored.value, [key()]: ids })
  return {
    otherSamples,
    add: (id: number) => set([...otherSamples.value.filter((item) => item !== id), id]),
    remove: (id: number) => set(otherSamples.value.filter((item) => item !== id)),
    clear: () => set([]),
  }
}
