/** What a map rests on, asked for when it is looked at. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'

export function useRestsOn(
  sampleId: MaybeRefOrGetter<number>,
  asked: MaybeRefOrGetter<Schemas['RestingIn']>,
  enabled: MaybeRefOrGetter<boolean>,
) {
  return useQuery({
    queryKey: ['rests-on', sampleId, asked],
    queryFn: () =>
      unwrap(
        client.POST('/api/samples/{sample_id}/rests-on', {
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
