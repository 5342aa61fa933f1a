/** Addresses that changes make stale, as the server names them: fetched again where it is shown, here and in the other windows. */
import { useQueryClient, type Query, type QueryClient } from '@tanstack/vue-query'
import { createGlobalState, useBroadcastChannel } from '@vueuse/core'
import { watch } from 'vue'
import { client } from './client'
import { addressOf } from './queryKeys'

const STALE_HEADER = 'Tabrel-Stale'

/** Maps are computed again once the hands rest, and not with every reading. */
const ONCE_THE_HANDS_REST = /\/map$/

/** Return whether a name covers an address: a last * what lies beneath, another * any one step. */
export function covers(name: string, address: string): boolean {
  const steps = name.split('/')
  const path = address.split('/')
  if (steps.at(-1) === '*') return path.length >= steps.length && steps.slice(0, -1).every((step, i) => step === '*' || step === path[i])
  return path.length === steps.length && steps.every((step, i) => step === '*' || step === path[i])
}

/** Mark as stale what names cover; what is shown of it is fetched again. */
export function renew(queries: QueryClient, names: readonly string[]): void {
  const covered = (address: string) => names.some((name) => covers(name, address))
  const later = (address: string) => ONCE_THE_HANDS_REST.test(address)
  // what is on its way for the first time would arrive as if it were new: it is asked for again
  const isFirst = ({ queryKey: key, state }: Query) => state.data === undefined && covered(addressOf(key)) && !later(addressOf(key))
  void queries.cancelQueries({ predicate: isFirst })
  void queries.invalidateQueries({ predicate: ({ queryKey: key }) => covered(addressOf(key)) && !later(addressOf(key)) })
  void queries.invalidateQueries({ predicate: ({ queryKey: key }) => covered(addressOf(key)) && later(addressOf(key)), refetchType: 'none' })
}

/** One channel a window, or it would hear itself. */
const useChannel = createGlobalState(() => useBroadcastChannel<string[], string[]>({ name: 'tabrel.stale' }))

/** Tell the other windows of this browser what they have to look at again. */
export function tellOtherWindows(names: readonly string[]): void {
  useChannel().post([...names])
}

/** Heed what answers name as stale, and what other windows tell; once a window. */
export function useStale(): void {
  const queries = useQueryClient()
  client.use({
    onResponse({ response }) {
      const names = response.headers.get(STALE_HEADER)?.split(', ') ?? []
      if (!names.length) return
      renew(queries, names)
      tellOtherWindows(names)
    },
  })
  // each as it comes: of two that come at once the first is not passed over
  watch(useChannel().data, (names) => names && renew(queries, names), { flush: 'sync' })
}
