/** Oil and engine of a sample's study, the engine library, and what changes them. */
import { keepPreviousData, useMutation, useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

export type Engine = Schemas['EngineOut']
export type OilLine = Schemas['OilLineOut']

export function useEngine(sampleId: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: queryKeys.engine(sampleId),
    queryFn: () =>
      unwrap(client.GET('/api/samples/{sample_id}/engine', { params: { path: { sample_id: toValue(sampleId) } } })),
    placeholderData: keepPreviousData,
    shallow: true,
  })
}

/** The library of engines: save the study's, remove one. */
export function useEngineLibrary(sampleId: MaybeRefOrGetter<number>) {
  const save = useMutation({
    mutationFn: () =>
      unwrap(client.POST('/api/samples/{sample_id}/engine/save', { params: { path: { sample_id: toValue(sampleId) } }, body: {} })),
  })
  const remove = useMutation({
    mutationFn: (id: number) => unwrap(client.DELETE('/api/engines/{engine_id}', { params: { path: { engine_id: id } }, body: {} })),
  })
  return { save: () => save.mutateAsync(), remove: (id: number) => remove.mutateAsync(id) }
}

/** Return what an engine of the library would change, line by line; nothing is changed by asking. */
export function previewEngine(sampleId: number, name: string): Promise<Schemas['EngineLinesOut']> {
  return unwrap(client.POST('/api/samples/{sample_id}/engine/preview', { params: { path: { sample_id: sampleId } }, body: { name } }))
}

/** Return the line of an oil that is only looked at. */
export function previewLine(body: Schemas['OilLineIn']): Promise<OilLine> {
  return unwrap(client.POST('/api/oil/line', { body }))
}
