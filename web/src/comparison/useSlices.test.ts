import { describe, expect, it } from 'vitest'
import { jsonLines } from './useSlices'

describe('slices', () => {
  it('read a stream line by line however it is cut', async () => {
    const bytes = new TextEncoder().encode('{"line":{"kind":"progress","key":"1","done":1,"total":2}}\n{"line":{"kind":"problem","key":"2-0","message":"°","missing":[]}}\n')
    const body = new ReadableStream<Uint8Array>({
      start(controller) {
        for (let i = 0; i < bytes.length; i += 7) controller.enqueue(bytes.slice(i, i + 7))
        controller.close()
      },
    })
    const kinds = []
    for await (const { line } of jsonLines(body)) kinds.push(line.kind)
    expect(kinds).toEqual(['progress', 'problem'])
  })
})
