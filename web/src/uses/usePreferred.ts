/** Preferences of the analyst among observations of a filter, for every study. */
import { useQuery } from '@tanstack/vue-query'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

export function usePreferred() {
  return useQuery({ queryKey: queryKeys.preferences(), queryFn: () => unwrap(client.GET('/api/preferences')), retry: false })
}
