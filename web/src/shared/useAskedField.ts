/** Put the focus on the field that the address asks for, as soon as it is there. */
import { nextTick, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

interface Asked {
  ready: () => unknown
  focus: (key: string) => unknown
  /** Open what the field is in. */
  before?: (key: string) => void
  /** Where the address asks for none. */
  otherwise?: () => void
}

export function useAskedField({ ready, focus, before, otherwise }: Asked): void {
  const route = useRoute()
  const router = useRouter()
  watch(
    [() => route.query.field, ready],
    async ([key, isReady]) => {
      if (!isReady) return
      if (typeof key === 'string') before?.(key)
      await nextTick()
      if (typeof key !== 'string') return otherwise?.()
      focus(key)
      void router.replace({ query: {} })
    },
    { immediate: true },
  )
}
