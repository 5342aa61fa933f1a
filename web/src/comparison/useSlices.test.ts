import { describe, expect, it } from 'vitest'
import { bandPath, upScale, valuePath } from '@/shared/bandChart'
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
  it('draw a band only where there is one, on a scale that holds all of it', () => {
    const band = { along: [0, 1, 2], value: [1, 10, null], low: [0.5, 5, null], high: [2, 20, null] }
    const scale = upScale([band], true, 100, 0)
    expect(scale.at(0.5)).toBeLessThanOrEqual(100)
    expect(scale.at(20)).toBeGreaterThanOrEqual(0)
    expect(valuePath(band.along, band.value, (x) => x, scale).match(/[ML]/g)).toHaveLength(2)
    expect(bandPath(band, (x) => x, scale)).not.toContain('NaN')
    expect(upScale([{ ...band, value: [-5, 0, 5] }], false, 100, 0).at(-5)).toBeLessThanOrEqual(100)
  })
})
