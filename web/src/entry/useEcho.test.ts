import { describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useEcho } from './useEcho'

type Echo = Schemas['EchoOut']

describe('the echo of what is typed', () => {
  it('asks one question at a time, and of what is typed meanwhile only the last', async () => {
    vi.useFakeTimers()
    const text = ref('')
    const asked: string[] = []
    const answers: ((text: string) => void)[] = []
    const { echo, clear } = useEcho(
      text,
      (typed) => {
        asked.push(typed)
        return new Promise((resolve) => answers.push((said) => resolve({ data: { problem: said } as unknown as Echo, response: new Response() })))
      },
      () => 'metric',
    )
    const typeOn = async (typed: string) => {
      text.value = typed
      await nextTick()
      await vi.advanceTimersByTimeAsync(200)
    }
    for (const typed of ['9', '98', '98.', '98.4']) await typeOn(typed)
    expect(asked).toEqual(['9'])
    answers[0]!('nine')
    await vi.advanceTimersByTimeAsync(0)
    expect(asked).toEqual(['9', '98.4'])
    expect(echo.value).toBeNull() // the answer was to something else
    answers[1]!('well')
    await vi.advanceTimersByTimeAsync(0)
    expect(echo.value).toEqual({ problem: 'well' })

    await typeOn('98.45')
    await typeOn('98.456')
    clear() // Enter
    text.value = ''
    answers[2]!('late')
    await vi.advanceTimersByTimeAsync(200)
    expect(asked).toEqual(['9', '98.4', '98.45'])
    expect(echo.value).toBeNull()
    vi.useRealTimers()
  })
})
