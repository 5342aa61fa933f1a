/** The operating map of one sample: in the engine in one condition, or the filter alone; as it is or in a scenario. */
import { keepPreviousData, useQuery, type QueryClient } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

export type Condition = Schemas['OperatingMapOut']['condition']
export type OperatingMap = Schemas['OperatingMapOut']
export type Scenario = Schemas['Scenario']

export interface MapAsked {
  condition: Condition
  size: number
  /** Null for the filter and engine as they are. */
  scenario: Scenario | null
}

/** Another window may have changed the readings: look again on return after this. */
const STALE_AFTER_MS = 5000
export const USUAL_SIZE_UM = 20

function fetchMap(sampleId: number, asked: MapAsked): Promise<OperatingMap> {
  const { condition, size, scenario } = asked
  return unwrap(
    client.POST('/api/samples/{sample_id}/map', {
      params: { path: { sample_id: sampleId } },
      body: { condition, size_um: size, scenario },
    }),
  )
}

export function useOperatingMap(
  sampleId: MaybeRefOrGetter<number>,
  asked: MaybeRefOrGetter<MapAsked>,
  enabled: MaybeRefOrGetter<boolean> = true,
) {
  return useQuery({
    queryKey: queryKeys.map(sampleId, asked),
    queryFn: () => fetchMap(toValue(sampleId), toValue(asked)),
    placeholderData: keepPreviousData,
    structuralSharing: false,
    shallow: true,
    staleTime: STALE_AFTER_MS,
    retry: false,
    enabled: () => toValue(enabled),
  })
}

export function useFilterAlone(
  sampleId: MaybeRefOrGetter<number>,
  scenario: MaybeRefOrGetter<Scenario | null>,
  enabled: MaybeRefOrGetter<boolean>,
) {
  return useQuery({
    queryKey: queryKeys.filterAlone(sampleId, scenario),
    queryFn: () =>
      unwrap(
        client.POST('/api/samples/{sample_id}/filter-alone', {
          params: { path: { sample_id: toValue(sampleId) } },
          body: { scenario: toValue(scenario) },
        }),
      ),
    placeholderData: keepPreviousData,
    structuralSharing: false,
    shallow: true,
    staleTime: STALE_AFTER_MS,
    retry: false,
    enabled: () => toValue(enabled),
  })
}

function isPlain(asked: unknown): asked is MapAsked {
  return typeof asked === 'object' && asked !== null && (asked as MapAsked).scenario === null
}

/** Renew the maps of a sample whose readings changed, so that they are there before they are asked for. */
export async function prefetchMaps(queries: QueryClient, sampleId: number): Promise<void> {
  await queries.cancelQueries({ queryKey: queryKeys.mapsOf(sampleId) })
  const seen = queries.getQueryCache().findAll({ queryKey: queryKeys.mapsOf(sampleId) }).map((query) => query.queryKey[2]).filter(isPlain)
  await queries.invalidateQueries({ queryKey: queryKeys.mapsOf(sampleId), refetchType: 'none' })
  const usual: MapAsked = { condition: 'steady', size: USUAL_SIZE_UM, scenario: null }
  for (const asked of seen.length ? seen : [usual])
    await queries.prefetchQuery({
      queryKey: queryKeys.map(sampleId, asked),
      queryFn: () => fetchMap(sampleId, asked),
      structuralSharing: false,
      retry: false,
    })
}
