import { describe, expect, it } from 'vitest'
import { toDigits, toPercent, withUncertainty } from './numbers'

describe('numbers as people read them', () => {
  it('never writes minus nothing', () => {
    expect(withUncertainty(-0.0004, 4.5)).toEqual({ value: '0.0', uncertainty: '4.5' })
    expect(withUncertainty(-12, 4.5).value).toBe('−12.0')
  })
  it('lets digits follow the uncertainty', () => {
    expect(withUncertainty(1013.04, 12.34)).toEqual({ value: '1013', uncertainty: '12' })
    expect(withUncertainty(175.503, 6.6656)).toEqual({ value: '175.5', uncertainty: '6.7' })
    expect(withUncertainty(0.8200004, 0.0071)).toEqual({ value: '0.8200', uncertainty: '0.0071' })
    expect(withUncertainty(132.7323, 0)).toEqual({ value: '132.7', uncertainty: null })
    expect(withUncertainty(54, null)).toEqual({ value: '54', uncertainty: null })
    expect(withUncertainty(6.5, null)).toEqual({ value: '6.5', uncertainty: null })
  })
  it('keeps significant digits without an exponent', () => {
    expect(toDigits(0.0012345, 3)).toBe('0.00123')
    expect(toDigits(123456, 3)).toBe('123456')
    expect(toDigits(-16.45, 3)).toBe('−16.4')
    expect(toDigits(0)).toBe('0')
  })
  it('shows nothing as nothing only where it is nothing', () => {
    expect(toPercent(0)).toBe('0 %')
    expect(toPercent(0.0004)).toBe('under 0.1 %')
    expect(toPercent(0.0213)).toBe('2.1 %')
    expect(toPercent(0.4235)).toBe('42 %')
  })
})
