import { describe, expect, it } from 'vitest'
import { unwrap } from './client'

describe('an answer of the server', () => {
  it('becomes data, its own sentence, or one of ours', async () => {
    const response = new Response(null, { status: 500 })
    await expect(unwrap(Promise.resolve({ data: 1, response }))).resolves.toBe(1)
    const error = { detail: 'no', where: 'x', missing: ['y'] }
    await expect(unwrap(Promise.resolve({ error, response }))).rejects.toMatchObject({ message: 'no', where: 'x', missing: ['y'] })
    await expect(unwrap(Promise.resolve({ error: 'oops', response }))).rejects.toThrow('answered 500')
    await expect(unwrap(Promise.reject(new TypeError('net')))).rejects.toThrow('does not answer')
  })
})
