import { expect, it, vi } from 'vitest'
import { client, unwrap } from './client'
import { loadAgainAfter, sayWhenLoadedAgain } from './database'

function answer(identity: string, body: string | Promise<string> = '{}'): Response {
  const stream = new ReadableStream({
    async start(controller) {
      controller.enqueue(new TextEncoder().encode(await body))
      controller.close()
    },
  })
  return new Response(stream, { headers: { 'Tabrel-Database': identity, 'Content-Type': 'application/json' } })
}

it('loads the window again only when the words of an answer that is still coming are kept', async () => {
  const reload = vi.spyOn(window.location, 'reload').mockImplementation(() => undefined)
  const answers = vi.spyOn(globalThis, 'fetch')
  answers.mockResolvedValueOnce(answer('first'))
  await client.GET('/api/backups')
  let arrive: (text: string) => void = () => undefined
  answers.mockResolvedValueOnce(answer('second', new Promise((resolve) => (arrive = resolve))))
  const words = loadAgainAfter(unwrap(client.GET('/api/backups')).then((done) => sayWhenLoadedAgain(done.notes)))
  await new Promise((resolve) => setTimeout(resolve, 100))
  expect(reload).not.toHaveBeenCalled()
  arrive('{"notes": "kept as it was"}')
  await words
  await vi.waitFor(() => expect(reload).toHaveBeenCalledOnce())
  expect(sessionStorage.getItem('tabrel.loadedAgain')).toBe('kept as it was')
  sessionStorage.clear()
  vi.restoreAllMocks()
})
