/** Percentiles of a filter over every other of its size: asked again while some of the others are still to be computed. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

/** Between two answers others have their turn. */
const PAUSE_MS = 300

export function usePercentiles(sampleId: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: queryKeys.percentiles(sampleId),
    queryFn: () => unwrap(client.GET('/api/samples/{sample_id}/percentiles', { params: { path: { sample_id: toValue(sampleId) } } })),
    refetchInterval: ({ state }) => (state.data?.remaining ? PAUSE_MS : false),
    placeholderData: keepPreviousData,
    shallow: true,
    retry: false,
  })
}
