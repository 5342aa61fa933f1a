/** The bench sheet of one sample, and the three things that change it. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { prefetchMaps } from './useOperatingMap'

type Sheet = Schemas['SheetOut']

export function useSheet(sampleId: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: ['sheet', sampleId],
    queryFn: () =>
      unwrap(client.GET('/api/samples/{sample_id}', { params: { path: { sample_id: toValue(sampleId) } } })),
  })
}

/** Adding, striking out and restoring readings; each answers with the sheet as it then stands. */
export function useReadingChanges(sampleId: MaybeRefOrGetter<number>) {
  const queries = useQueryClient()

  function take(sheet: Sheet) {
    queries.setQueryData(['sheet', sheet.id], sheet)
    void queries.invalidateQueries({ queryKey: ['study', sheet.study_id] })
    void queries.invalidateQueries({ queryKey: ['studies'] })
    void prefetchMaps(queries, sheet.id)
  }

  const add = useMutation({
    mutationFn: (reading: Schemas['ReadingIn']) =>
      unwrap(
        client.POST('/api/samples/{sample_id}/readings', {
          params: { path: { sample_id: toValue(sampleId) } },
          body: reading,
        }),
      ),
    onSuccess: take,
  })
  const strikeOut = useMutation({
    mutationFn: ({ id, reason }: { id: number; reason: string }) =>
      unwrap(
        client.POST('/api/readings/{reading_id}/strike-out', {
          params: { path: { reading_id: id } },
          body: { reason },
        }),
      ),
    onSuccess: take,
  })
  const restore = useMutation({
    mutationFn: (id: number) =>
      unwrap(client.POST('/api/readings/{reading_id}/restore', { params: { path: { reading_id: id } } })),
    onSuccess: take,
  })
  return { add, strikeOut, restore }
}

/** Titles of all fields of a sheet by key, such as "Media: strip length". */
export function useFieldTitles(sheet: MaybeRefOrGetter<Sheet | undefined>) {
  return computed(() => {
    const titles = new Map<string, string>()
    for (const part of toValue(sheet)?.parts ?? [])
      for (const field of part.fields) titles.set(field.key, `${part.title}: ${field.title}`)
    return titles
  })
}
