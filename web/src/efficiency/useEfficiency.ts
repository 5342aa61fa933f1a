/** Everything that speaks of the micron efficiency of one filter. */
import { useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

export function useEfficiency(sampleId: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: queryKeys.efficiency(sampleId),
    queryFn: () => unwrap(client.GET('/api/samples/{sample_id}/efficiency', { params: { path: { sample_id: toValue(sampleId) } } })),
    shallow: true,
  })
}
