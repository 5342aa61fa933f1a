/** Uses judged for every filter: what they do at the points of a use is computed a filter at a time, and can be stopped. */
import { keepPreviousData, useQueries, useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref, toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import type { StoredUse } from './useUses'

export type Judged = Schemas['JudgedUseOut']
export type Compared = Judged['compared']

/** A criterion with a what-if weight. */
export interface Trial {
  criterion: number
  weight: number
}

const judgedAt = '/api/studies/{study_id}/uses/{use_id}/judged'

/** Parts of a use that the behaviour of the filters rests on: it is computed again when they change. */
function pointsOf({ use }: StoredUse): string {
  const measures = [...(use.criteria ?? []), ...(use.requirements ?? [])].map((item) => item.measure)
  return JSON.stringify([use.temperature_c, use.speed_rpm, use.hot_temperature_c, use.hot_speed_rpm, measures.sort()])
}

export function useJudged(
  studyId: MaybeRefOrGetter<number>,
  sampleIds: MaybeRefOrGetter<readonly number[]>,
  uses: MaybeRefOrGetter<readonly StoredUse[]>,
  asked: MaybeRefOrGetter<{ compared: Compared; any_weights: boolean }>,
  /** The use in hand. */
  first: MaybeRefOrGetter<number | null>,
) {
  /** How many filters of a use are computed, of how many, while that goes on. */
  const progress = reactive(new Map<number, { done: number; of: number }>())
  const isStopped = ref(false)
  const computedAt = new Map<number, string>()

  /** One use after the other, the one in hand first: what they share is computed once, and the first is there soon. */
  const waiting: { id: number; start: () => Promise<void> }[] = []
  let isBusy = false
  function next() {
    if (isBusy || !waiting.length) return
    const inHand = waiting.findIndex((item) => item.id === toValue(first))
    const [one] = waiting.splice(Math.max(0, inHand), 1)
    isBusy = true
    void one!.start().finally(() => {
      isBusy = false
      next()
    })
  }
  function fetchInTurn(stored: StoredUse, signal: AbortSignal): Promise<Judged> {
    return new Promise((resolve, reject) => {
      const start = async () => {
        try {
          signal.throwIfAborted()
          resolve(await fetchJudged(stored, signal))
        } catch (error) {
          reject(error as Error)
        }
      }
      waiting.push({ id: stored.id, start })
      queueMicrotask(next) // all that are asked for at once wait before the first is chosen
    })
  }

  async function fetchJudged(stored: StoredUse, signal: AbortSignal): Promise<Judged> {
    const path = { study_id: toValue(studyId), use_id: stored.id }
    const points = pointsOf(stored)
    try {
      if (computedAt.get(stored.id) !== points) {
        const ids = toValue(sampleIds)
        for (const [done, id] of ids.entries()) {
          progress.set(stored.id, { done, of: ids.length })
          await unwrap(
            client.GET('/api/studies/{study_id}/uses/{use_id}/filters/{sample_id}', { params: { path: { ...path, sample_id: id } }, signal }),
          )
        }
      }
      const judged = await unwrap(client.GET(judgedAt, { params: { path, query: toValue(asked) }, signal }))
      computedAt.set(stored.id, points)
      return judged
    } finally {
      progress.delete(stored.id)
    }
  }

  const queries = useQueries({
    queries: computed(() =>
      toValue(uses).map((stored) => ({
        queryKey: queryKeys.judged(toValue(studyId), stored.id, toValue(asked)),
        queryFn: ({ signal }: { signal: AbortSignal }) => fetchInTurn(stored, signal),
        placeholderData: keepPreviousData,
        enabled: !isStopped.value,
        retry: false,
      })),
    ),
  })

  const ofUse = computed(() => new Map(toValue(uses).map((stored, i) => [stored.id, queries.value[i]!])))
  return { ofUse, progress, isStopped }
}

/** One use judged with a weight otherwise. */
export function useTrial(
  studyId: MaybeRefOrGetter<number>,
  useId: MaybeRefOrGetter<number>,
  asked: MaybeRefOrGetter<{ compared: Compared; any_weights: boolean }>,
  trial: MaybeRefOrGetter<Trial | null>,
) {
  const query = computed(() => {
    const thought = toValue(trial)
    return { ...toValue(asked), trial_criterion: thought?.criterion ?? null, trial_weight: thought?.weight ?? null }
  })
  return useQuery({
    queryKey: queryKeys.judged(studyId, useId, query),
    queryFn: () => unwrap(client.GET(judgedAt, { params: { path: { study_id: toValue(studyId), use_id: toValue(useId) }, query: query.value } })),
    enabled: () => toValue(trial) !== null,
    placeholderData: keepPreviousData,
    retry: false,
  })
}
