/** What the server understands of a text while it is being typed. */
import { ref, watch, type Ref } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import type { UnitFamily } from '@/lib/units'

const PAUSE_MS = 60

export function useEcho(text: Ref<string>, key: () => string, family: () => UnitFamily) {
  const echo = ref<Schemas['EchoOut'] | null>(null)
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  function clear() {
    asked += 1
    clearTimeout(timer)
    echo.value = null
  }

  watch([text, family], () => {
    clear()
    if (!text.value.trim()) return
    const question = asked
    timer = setTimeout(async () => {
      try {
        const body = { key: key(), text: text.value, family: family() }
        const understood = await unwrap(client.POST('/api/echo', { body }))
        if (question === asked) echo.value = understood
      } catch {
        // the echo is a help only: Enter reports what is wrong
      }
    }, PAUSE_MS)
  })
  return { echo, clear }
}
