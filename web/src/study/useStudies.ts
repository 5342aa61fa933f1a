/** The list of studies, one study, and the import of a document. */
import { useMutation, useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { catalogue } from '@/catalogue/catalogue'
import { sentAsItIs } from '@/shared/readTextFile'

export function useStudies() {
  return useQuery({ queryKey: queryKeys.studies(), queryFn: () => unwrap(client.GET('/api/studies')) })
}

export function useStudy(studyId: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: queryKeys.study(studyId),
    queryFn: () =>
      unwrap(client.GET('/api/studies/{study_id}', { params: { path: { study_id: toValue(studyId) } } })),
  })
}

/** Import a zip that Tabrel wrote. */
export function useImportPackage() {
  return useMutation({
    mutationFn: async (file: File) => unwrap(client.POST('/api/packages', await sentAsItIs(file, catalogue().package_bytes, 'application/zip'))),
  })
}

export function useImportStudy() {
  return useMutation({
    mutationFn: (text: string) =>
      unwrap(
        client.POST('/api/studies', {
          body: text as never,
          bodySerializer: (body) => body as unknown as string,
          headers: { 'Content-Type': 'application/json' },
        }),
      ),
  })
}
