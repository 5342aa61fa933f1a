/** Inputs and sensitivity of a map, asked for when they are looked at. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

export function useSensitivity(
  sampleId: MaybeRefOrGetter<number>,
  asked: MaybeRefOrGetter<Schemas['SensitivityIn']>,
  enabled: MaybeRefOrGetter<boolean>,
) {
  return useQuery({
    queryKey: queryKeys.sensitivity(sampleId, asked),
    queryFn: () =>
      unwrap(
        client.POST('/api/samples/{sample_id}/sensitivity', {
          params: { path: { sample_id: toValue(sampleId) } },
          body: toValue(asked),
        }),
      ),
    placeholderData: keepPreviousData,
    shallow: true,
    retry: false,
    enabled: () => toValue(enabled),
  })
}
