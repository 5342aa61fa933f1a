/** The scenarios saved in a study, and what changes them. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

export function useScenarios(studyId: MaybeRefOrGetter<number>) {
  const queries = useQueryClient()
  const query = useQuery({
    queryKey: queryKeys.scenarios(studyId),
    queryFn: () =>
      unwrap(client.GET('/api/studies/{study_id}/scenarios', { params: { path: { study_id: toValue(studyId) } } })),
  })
  const took = (now: Schemas['ScenarioOut'][]) => void queries.setQueryData(queryKeys.scenarios(toValue(studyId)), now)
  const save = useMutation({
    mutationFn: (scenario: Schemas['Scenario']) =>
      unwrap(client.POST('/api/studies/{study_id}/scenarios', { params: { path: { study_id: toValue(studyId) } }, body: scenario })),
    onSuccess: took,
  })
  const remove = useMutation({
    mutationFn: (id: number) =>
      unwrap(client.DELETE('/api/scenarios/{scenario_id}', { params: { path: { scenario_id: id } }, body: {} })),
    onSuccess: took,
  })
  return {
    query,
    save: async (scenario: Schemas['Scenario']) => void (await save.mutateAsync(scenario)),
    remove: async (id: number) => void (await remove.mutateAsync(id)),
  }
}
