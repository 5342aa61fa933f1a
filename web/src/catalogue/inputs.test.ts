import { describe, expect, it } from 'vitest'
import { countWords, fieldOf, inputName, needsWords } from './inputs'

const titles = new Map([['media.thickness', 'Media: thickness'], ['holes.inlet[0].diameter', 'Inlet holes: diameter']])

describe('inputs', () => {
  it('are counted by provenance, best evidence first', () => {
    expect(countWords({ assumed: 2, measured: 5, published: 1, by_eye: 0 })).toBe('5 measured, 1 published, 2 assumed')
    expect(countWords(undefined)).toBe('')
  })
  it('are named by their field, or by words of their own, and lead to where they are entered', () => {
    expect(inputName('media.thickness', titles)).toBe('Media: thickness')
    expect(inputName('circuit.stud', titles)).toBe("the engine's stud")
    expect(fieldOf('circuit.stud', titles)).toBe('engine.stud_bore')
    expect(fieldOf('bypass.spring_rate', titles)).toBeNull()
    expect(needsWords('cannot', ['media.thickness', 'oil'], titles)).toBe('needs Media: thickness, the oil')
    expect(needsWords('cannot', [], titles)).toBe('cannot')
    expect(needsWords('', ['oil', 'media_family', 'circuit.stud'], titles, 1)).toBe('needs the oil and 2 more')
  })
})
