/** The working of one result. */
import { useQuery } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { client, ProblemError, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { catalogue } from '@/catalogue/catalogue'
import type { Sheet } from '@/sample/useSheet'

/** Return what a result still needs, as the sheet says. */
function missing(name: string, sheet: Sheet | undefined): string[] {
  const key = catalogue().results.find((result) => result.name === name)?.key
  const result = sheet && key ? sheet.analysis.results[key as keyof typeof sheet.analysis.results] : undefined
  return result && result.value === null && result.low === null && result.high === null ? result.missing : []
}

/** A result that cannot be computed yet is not requested. */
export function useWorking(sampleId: MaybeRefOrGetter<number>, name: MaybeRefOrGetter<string>, sheet: () => Sheet | undefined) {
  return useQuery({
    queryKey: queryKeys.working(sampleId, name),
    queryFn: () => {
      const lacking = missing(toValue(name), sheet())
      if (lacking.length) throw new ProblemError({ detail: 'This cannot be computed yet.', where: '', missing: lacking }, 409)
      return unwrap(
        client.GET('/api/samples/{sample_id}/working/{name}', {
          params: { path: { sample_id: toValue(sampleId), name: toValue(name) } },
        }),
      )
    },
    retry: false,
    enabled: () => sheet() !== undefined,
  })
}
