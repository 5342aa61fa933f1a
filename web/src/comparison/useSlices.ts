/** Slices with their bands: asked for line by line, with progress, and stopped at will. */
import { onBeforeUnmount, reactive } from 'vue'
import type { Schemas } from '@/api/client'

export type SliceBand = Schemas['SliceBandOut']

/** Split a stream of bytes into lines of JSON. */
export async function* jsonLines(body: ReadableStream<Uint8Array>): AsyncGenerator<Schemas['SliceLineOut']> {
  const reader = body.pipeThrough(new TextDecoderStream() as unknown as ReadableWritablePair<string, Uint8Array>).getReader()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read()
    rest += value ?? ''
    const lines = rest.split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines) if (line.trim()) yield JSON.parse(line) as Schemas['SliceLineOut']
    if (done) return
  }
}

export function useSlices() {
  const state = reactive({
    running: false,
    stopped: false,
    done: 0,
    total: 1,
    bands: {} as Record<string, SliceBand>,
    problems: {} as Record<string, { message: string; missing: string[] }>,
    failed: '',
  })
  let control: AbortController | null = null

  function stop() {
    if (!state.running) return
    control?.abort()
    state.running = false
    state.stopped = true
  }

  async function run(studyId: number, asked: Schemas['SliceIn']) {
    control?.abort()
    const mine = new AbortController()
    control = mine
    Object.assign(state, { running: true, stopped: false, done: 0, total: asked.keys.length, failed: '', problems: {} })
    const fresh: Record<string, SliceBand> = {}
    const shares: Record<string, number> = {}
    try {
      const answer = await fetch(`/api/studies/${studyId}/slices`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(asked),
        signal: mine.signal,
      })
      if (!answer.ok || !answer.body) {
        const problem = (await answer.json().catch(() => ({}))) as { detail?: string }
        throw new Error(problem.detail ?? `The server answered ${answer.status} without a reason: try again.`)
      }
      for await (const { line } of jsonLines(answer.body)) {
        if (mine !== control) return
        if (line.kind === 'progress') shares[line.key] = line.done / line.total
        else {
          shares[line.key] = 1
          if (line.kind === 'band') fresh[line.key] = line
          else state.problems[line.key] = line
          state.bands = { ...state.bands, ...fresh }
        }
        state.done = Object.values(shares).reduce((sum, share) => sum + share, 0)
      }
      state.bands = fresh
    } catch (error) {
      if (mine.signal.aborted) return
      state.failed = error instanceof Error && error.message ? error.message : 'The server does not answer: see whether Tabrel is still running, then try again.'
    } finally {
      if (mine === control) state.running = false
    }
  }

  onBeforeUnmount(() => control?.abort())
  return { state, run, stop }
}
