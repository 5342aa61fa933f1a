/** Figures beside the readings of the opened filter. */
import { useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

export function useFigures(sampleId: MaybeRefOrGetter<number>, enabled: MaybeRefOrGetter<boolean>) {
  return useQuery({
    queryKey: queryKeys.figures(sampleId),
    queryFn: () =>
      unwrap(client.GET('/api/samples/{sample_id}/figures', { params: { path: { sample_id: toValue(sampleId) } } })),
    enabled: () => toValue(enabled),
    shallow: true,
  })
}
