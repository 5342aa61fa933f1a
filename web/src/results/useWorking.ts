/** The working of one result. */
import { useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

export function useWorking(sampleId: MaybeRefOrGetter<number>, name: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: queryKeys.working(sampleId, name),
    queryFn: () =>
      unwrap(
        client.GET('/api/samples/{sample_id}/working/{name}', {
          params: { path: { sample_id: toValue(sampleId), name: toValue(name) } },
        }),
      ),
    retry: false,
  })
}
