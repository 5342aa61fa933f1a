import { describe, expect, it } from 'vitest'
import { inTurn } from './useSheet'

describe('changes in turn', () => {
  it('start at once when nothing is underway, else one after the other, in order, whatever fails', async () => {
    const log: string[] = []
    const release: (() => void)[] = []
    const work = (name: string, fails = false) => () => {
      log.push(`${name} starts`)
      return new Promise<string>((resolve, reject) => {
        release.push(() => {
          log.push(`${name} ends`)
          if (fails) reject(new Error(name))
          else resolve(name)
        })
      })
    }
    const first = inTurn(work('first', true))
    expect(log).toEqual(['first starts'])
    const second = inTurn(work('second'))
    const third = inTurn(work('third'))
    release[0]!()
    await expect(first).rejects.toThrow('first')
    await new Promise((resolve) => setTimeout(resolve))
    expect(log).toEqual(['first starts', 'first ends', 'second starts'])
    release[1]!()
    expect(await second).toBe('second')
    await new Promise((resolve) => setTimeout(resolve))
    release[2]!()
    expect(await third).toBe('third')
    expect(log.slice(-2)).toEqual(['third starts', 'third ends'])
    void inTurn(work('fourth'))
    expect(log.at(-1)).toBe('fourth starts')
    release[3]!()
  })
})
