/** The operating map of one sample in one condition. */
import { keepPreviousData, useQuery, type QueryClient } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'

export type Condition = Schemas['OperatingMapOut']['condition']
export type OperatingMap = Schemas['OperatingMapOut']

/** Another window may have changed the readings: look again on return after this. */
const STALE_AFTER_MS = 5000

function fetchMap(sampleId: number, condition: Condition): Promise<OperatingMap> {
  return unwrap(
    client.GET('/api/samples/{sample_id}/map', {
      params: { path: { sample_id: sampleId }, query: { condition } },
    }),
  )
}

export function useOperatingMap(sampleId: MaybeRefOrGetter<number>, condition: MaybeRefOrGetter<Condition>) {
  return useQuery({
    queryKey: ['map', sampleId, condition],
    queryFn: () => fetchMap(toValue(sampleId), toValue(condition)),
    placeholderData: keepPreviousData,
    structuralSharing: false,
    staleTime: STALE_AFTER_MS,
    retry: false,
  })
}

/** Renew the maps of a sample whose readings changed, so that they are there before they are asked for. */
export async function prefetchMaps(queries: QueryClient, sampleId: number): Promise<void> {
  await queries.cancelQueries({ queryKey: ['map', sampleId] })
  const seen = queries.getQueryCache().findAll({ queryKey: ['map', sampleId] })
  const conditions = new Set<Condition>(seen.map((query) => query.queryKey[2] as Condition))
  await queries.invalidateQueries({ queryKey: ['map', sampleId], refetchType: 'none' })
  for (const condition of conditions.size ? conditions : new Set<Condition>(['steady']))
    await queries.prefetchQuery({
      queryKey: ['map', sampleId, condition],
      queryFn: () => fetchMap(sampleId, condition),
      structuralSharing: false,
      retry: false,
    })
}
