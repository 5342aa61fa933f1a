import { describe, expect, it } from 'vitest'
import { agreementLines, agreementWords } from './agreement'

describe('the ways to an opening pressure', () => {
  it('agree in pairs or not, and say so', () => {
    expect(agreementWords({ first: 'force', second: 'spring', normalised_error: 0.42, agrees: true, reservation: '' })).toBe(
      'push-off force and spring dimensions agree (Eₙ 0.4)',
    )
    expect(agreementWords({ first: 'pressure', second: 'stated', normalised_error: null, agrees: false, reservation: '' })).toBe(
      'bench pressure and stated setting disagree',
    )
    const pair = (second: string, normalised_error: number) => ({ first: 'pressure', second, normalised_error, agrees: normalised_error <= 1, reservation: second === 'stated' ? 'the tolerance of the stated figure is not known' : '' })
    expect(agreementLines([pair('force', 0.2), pair('spring', 0.7)]).map((item) => item.words)).toEqual(['all of them agree (Eₙ up to 0.7)'])
    expect(agreementLines([pair('force', 0.2), pair('spring', 0.7), pair('stated', 3)]).map((item) => item.words)).toEqual([
      'bench pressure and stated setting disagree (Eₙ 3.0), but the tolerance of the stated figure is not known',
      'the other pairs agree (Eₙ up to 0.7)',
    ])
  })
})
