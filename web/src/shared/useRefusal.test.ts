import { describe, expect, it } from 'vitest'
import { ProblemError } from '@/api/client'
import { useRefusal } from './useRefusal'

const refuse = () => Promise.reject(new ProblemError({ detail: 'Type a number.', where: '', missing: [] }))

describe('what is refused', () => {
  it('is said, and forgotten by the next thing that is taken', async () => {
    const { refused, guarded } = useRefusal()
    expect(await guarded(refuse)).toBe(false)
    expect(refused.value).toBe('Type a number.')
    expect(await guarded(() => Promise.resolve())).toBe(true)
    expect(refused.value).toBe('')
  })

  it('is not confused with a fault of the program', async () => {
    const { refused, guarded } = useRefusal()
    await expect(guarded(() => Promise.reject(new TypeError('broken')))).rejects.toThrow('broken')
    expect(refused.value).toBe('')
  })
})
