/** Echo: the meaning of a text while it is being typed. */
import { ref, watch, type Ref } from 'vue'
import { unwrap, type Schemas } from '@/api/client'

type Echo = Schemas['EchoOut']
const PAUSE_MS = 50

/**
 * Ask about a text as it is typed; `ask` sends one question, `watched` is whatever else changes the answer.
 *
 * One question is under way at a time: what is typed meanwhile is asked once it is answered, and only the last of it.
 */
export function useEcho(text: Ref<string>, ask: (text: string) => Parameters<typeof unwrap<Echo>>[0], watched: () => unknown) {
  const echo = ref<Echo | null>(null)
  let asked = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  let underWay = false
  let waiting = false

  function clear() {
    asked += 1
    clearTimeout(timer)
    waiting = false
    echo.value = null
  }

  async function send() {
    if (underWay) {
      waiting = true
      return
    }
    const question = asked
    underWay = true
    try {
      const understood = await unwrap(ask(text.value))
      if (question === asked) echo.value = understood
    } catch {
      // the echo is a help only: Enter reports what is wrong
      if (question === asked) echo.value = null
    } finally {
      underWay = false
    }
    if (!waiting) return
    waiting = false
    if (text.value.trim()) void send()
  }

  watch([text, watched], () => {
    asked += 1
    clearTimeout(timer)
    if (!text.value.trim()) {
      waiting = false
      echo.value = null
      return
    }
    timer = setTimeout(() => void send(), PAUSE_MS)
  })
  return { echo, clear }
}
