/** What the server understands of a text while it is being typed. */
import { ref, watch, type Ref } from 'vue'
import { unwrap, type Schemas } from '@/api/client'

type Echo = Schemas['EchoOut']
const PAUSE_MS = 50

/**
 * Ask about a text as it is typed; `ask` sends one question, `watched` is whatever else changes the answer.
 */
export function useEcho(text: Ref<string>, ask: (text: string) => Parameters<typeof unwrap<Echo>>[0], watched: () => unknown) {
  const echo = ref<Echo | null>(null)
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined

  function clear() {
    asked += 1
    clearTimeout(timer)
    echo.value = null
  }

  watch([text, watched], () => {
    asked += 1
    clearTimeout(timer)
    if (!text.value.trim()) {
      echo.value = null
      return
    }
    const question = asked
    timer = setTimeout(async () => {
      try {
        const understood = await unwrap(ask(text.value))
        if (question === asked) echo.value = understood
      } catch {
        // the echo is a help only: Enter reports what is wrong
        if (question === asked) echo.value = null
      }
    }, PAUSE_MS)
  })
  return { echo, clear }
}
