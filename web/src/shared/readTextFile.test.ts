import { describe, expect, it, vi } from 'vitest'
import { readTextFile } from './readTextFile'

describe('a chosen file', () => {
  it('is read as it is', async () => {
    expect(await readTextFile(new File(['{"name": "µm"}'], 'a.json'), 100)).toBe('{"name": "µm"}')
  })
  it('is refused in a sentence where it is too large, without reading it, or no text, or gone', async () => {
    const large = new File(['x'.repeat(101)], 'large.json')
    const reads = vi.spyOn(large, 'arrayBuffer')
    await expect(readTextFile(large, 100)).rejects.toThrow('large.json is larger than 0.0001 MB')
    expect(reads).not.toHaveBeenCalled()
    await expect(readTextFile(new File([new Uint8Array([0x34, 0xb5])], 'old.csv'), 100)).rejects.toThrow('old.csv is not text in UTF-8')
    const gone = new File(['x'], 'gone.csv')
    vi.spyOn(gone, 'arrayBuffer').mockRejectedValue(new DOMException('x', 'NotFoundError'))
    await expect(readTextFile(gone, 100)).rejects.toThrow('gone.csv cannot be read')
  })
})
