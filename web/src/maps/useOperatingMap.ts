/** The operating map of one sample: in the engine in one condition, or the filter alone; as it is or in a scenario. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { requireReady } from './readiness'

export type Condition = Schemas['OperatingMapOut']['condition']
export type OperatingMap = Schemas['OperatingMapOut']
export type Scenario = Schemas['Scenario']
type Needs = readonly Schemas['OpenNeedOut'][]

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
  /** Missing inputs, as the sheet lists them; undefined before they are known. */
  needs: () => Needs | undefined,
  enabled: MaybeRefOrGetter<boolean> = true,
) {
  return useQuery({
    queryKey: queryKeys.map(sampleId, asked),
    queryFn: () => {
      requireReady(needs() ?? [], toValue(asked).scenario)
      return fetchMap(toValue(sampleId), toValue(asked))
    },
    placeholderData: keepPreviousData,
    structuralSharing: false,
    shallow: true,
    staleTime: STALE_AFTER_MS,
    retry: false,
    enabled: () => toValue(enabled) && needs() !== undefined,
  })
}

export function useFilterAlone(
  sampleId: MaybeRefOrGetter<number>,
  scenario: MaybeRefOrGetter<Scenario | null>,
  needs: () => Needs | undefined,
  enabled: MaybeRefOrGetter<boolean>,
) {
  return useQuery({
    queryKey: queryKeys.filterAlone(sampleId, scenario),
    queryFn: () => {
      requireReady(needs() ?? [], toValue(scenario))
      const params = { path: { sample_id: toValue(sampleId) } }
      return unwrap(client.POST('/api/samples/{sample_id}/filter-alone', { params, body: { scenario: toValue(scenario) } }))
    },
    placeholderData: keepPreviousData,
    structuralSharing: false,
    shallow: true,
    staleTime: STALE_AFTER_MS,
    retry: false,
    enabled: () => toValue(enabled) && needs() !== undefined,
  })
}
