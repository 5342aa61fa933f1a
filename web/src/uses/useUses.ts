/** The uses of a study, and everything that changes one; each change names the use as it was seen. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { inTurn } from '@/sample/useSheet'

export type Use = Schemas['Use']
export type StoredUse = Schemas['StoredUseOut']
export type Measure = Schemas['MeasureOut']

export function useUses(studyId: MaybeRefOrGetter<number>) {
  const queries = useQueryClient()
  const key = () => queryKeys.uses(toValue(studyId))
  const query = useQuery({
    queryKey: queryKeys.uses(studyId),
    queryFn: () => unwrap(client.GET('/api/studies/{study_id}/uses', { params: { path: { study_id: toValue(studyId) } } })),
    retry: false,
  })
  const known = () => queries.getQueryData<Schemas['UsesOut']>(key())

  function take(stored: StoredUse) {
    const now = known()
    if (!now) return
    const others = now.uses.some((use) => use.id === stored.id)
    const uses = others ? now.uses.map((use) => (use.id === stored.id ? stored : use)) : [...now.uses, stored]
    queries.setQueryData(key(), { ...now, uses })
  }

  /** Begin a use with a preset; return its id. */
  async function begin(preset: string): Promise<number> {
    const body = { preset }
    const stored = await unwrap(client.POST('/api/studies/{study_id}/uses', { params: { path: { study_id: toValue(studyId) } }, body }))
    take(stored)
    return stored.id
  }

  /** Change a use as it is by now: changes that follow each other faster than the answers come do not undo one another. */
  function change(id: number, changed: (use: Use) => Use) {
    return inTurn(async () => {
      const seen = known()?.uses.find((use) => use.id === id)?.use
      if (!seen) return
      try {
        take(await unwrap(client.PUT('/api/uses/{use_id}', { params: { path: { use_id: id } }, body: { use: changed(seen), seen } })))
      } catch (error) {
        if (error instanceof ProblemError && [404, 412].includes(error.status)) await queries.invalidateQueries({ queryKey: key() })
        throw error
      }
    })
  }

  async function remove(id: number) {
    queries.setQueryData(key(), await unwrap(client.DELETE('/api/uses/{use_id}', { params: { path: { use_id: id } }, body: {} })))
  }

  return { query, begin, change, remove }
}

export type UseChanges = ReturnType<typeof useUses>
