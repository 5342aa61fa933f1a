/** The comparison sheet: at once without the uncertainty of behaviour, which then comes a filter at a time. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import type { Compared } from './useJudged'

export interface SheetAsked {
  compared: Compared
  use_id: number | null
  others: number[]
}

export function useFilterSheet(studyId: MaybeRefOrGetter<number>, sampleIds: MaybeRefOrGetter<readonly number[]>, asked: MaybeRefOrGetter<SheetAsked>) {
  const progress = ref<{ done: number; of: number } | null>(null)
  const isStopped = ref(false)
  const path = () => ({ study_id: toValue(studyId) })

  const fetchSheet = (with_draws: boolean, signal: AbortSignal) =>
    unwrap(client.GET('/api/studies/{study_id}/comparison-sheet', { params: { path: path(), query: { ...toValue(asked), with_draws } }, signal }))

  const rough = useQuery({
    queryKey: queryKeys.filterSheet(studyId, asked),
    queryFn: ({ signal }) => fetchSheet(false, signal),
    placeholderData: keepPreviousData,
    retry: false,
  })
  const full = useQuery({
    queryKey: queryKeys.filterSheet(studyId, () => ({ ...toValue(asked), with_draws: true })),
    queryFn: async ({ signal }) => {
      const use = toValue(asked).use_id
      const ids = use === null ? [] : toValue(sampleIds)
      try {
        for (const [done, sample_id] of ids.entries()) {
          progress.value = { done, of: ids.length }
          const params = { path: { ...path(), use_id: use!, sample_id }, query: { for_sheet: true } }
          await unwrap(client.GET('/api/studies/{study_id}/uses/{use_id}/filters/{sample_id}', { params, signal }))
        }
        return await fetchSheet(true, signal)
      } finally {
        progress.value = null
      }
    },
    enabled: () => !isStopped.value && rough.isSuccess.value && !rough.isPlaceholderData.value,
    retry: false,
  })
  // what has its uncertainty and is from before the last change is not shown over what is new
  const isFullNew = computed(() => full.data.value !== undefined && full.dataUpdatedAt.value >= rough.dataUpdatedAt.value)
  const sheet = computed(() => (isFullNew.value ? full.data.value : (rough.data.value ?? full.data.value)))
  const error = computed(() => rough.error.value ?? full.error.value)
  return { sheet, error, progress, isStopped }
}
