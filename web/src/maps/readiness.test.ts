import { describe, expect, it } from 'vitest'
import { ProblemError, type Schemas } from '@/api/client'
import { requireReady, stillNeeded } from './readiness'

const way = (...left: string[]) => ({ title: 'x', keys: left, left, entries: left.length })
const need = (title: string, ...ways: Schemas['OpenWayOut'][]): Schemas['OpenNeedOut'] => ({ title, group: 'engine', ways })
const oil = need('the oil', way('oil'))
const outlet = need('the outlet bore', way('thread.major_diameter', 'thread.pitch'), way('engine.stud_bore'))
const thought = (changes: Partial<Schemas['Scenario']>) => ({ name: 'x', ...changes }) as Schemas['Scenario']

describe('what a map needs', () => {
  it('is what the sheet says, less what the scenario brings', () => {
    expect(stillNeeded([oil, outlet], null)).toEqual([oil, outlet])
    expect(stillNeeded([oil, outlet], thought({ oil_grade: '5W-30' }))).toEqual([outlet])
    expect(stillNeeded([oil, outlet], thought({ stud_bore_mm: 12 }))).toEqual([oil])
    expect(stillNeeded([oil], thought({ oil_grade: null }))).toEqual([oil])
  })

  it('is told as the server tells it', () => {
    expect(() => requireReady([], null)).not.toThrow()
    const refusal = (() => {
      try {
        requireReady([oil, outlet], null)
      } catch (error) {
        return error
      }
    })()
    expect(refusal).toBeInstanceOf(ProblemError)
    expect(refusal).toMatchObject({ message: 'This cannot be computed yet: it needs the oil, the outlet bore.', missing: ['oil', 'thread.major_diameter', 'thread.pitch'] })
  })
})
