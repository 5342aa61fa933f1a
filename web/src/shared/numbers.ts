/** Numbers as people read them: digits follow the uncertainty. */
const MINUS = '−'

function signed(text: string): string {
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', MINUS)
}

/** Decimals that show a number to so many significant digits. */
function decimalsOf(value: number, digits: number): number {
  return Math.min(12, Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(value)))))
}

/** Return a number to so many significant digits, without an exponent. */
export function toDigits(value: number, digits = 3): string {
  return value === 0 ? '0' : signed(value.toFixed(decimalsOf(value, digits)))
}

/** Return a bound to so many significant digits, rounded to the side on which it still holds. */
export function boundToDigits(value: number, digits: number, side: 'lower' | 'upper'): string {
  if (value === 0) return '0'
  const decimals = decimalsOf(value, digits)
  const step = 10 ** -decimals
  const steps = side === 'lower' ? Math.floor(value / step + 1e-9) : Math.ceil(value / step - 1e-9)
  return signed((steps * step).toFixed(decimals))
}

/** Decimals that show an uncertainty to two significant digits. */
export function decimalsFor(uncertainty: number): number {
  return Math.min(12, Math.max(0, 1 - Math.floor(Math.log10(uncertainty))))
}

export interface ShownValue {
  value: string
  uncertainty: string | null
}

/** Return value and uncertainty to the same decimal place; without an uncertainty four digits at most. */
export function withUncertainty(value: number, uncertainty: number | null): ShownValue {
  if (uncertainty === null || !(uncertainty > 0))
    return { value: signed(String(Number(value.toPrecision(4)))), uncertainty: null }
  const decimals = decimalsFor(uncertainty)
  return { value: signed(value.toFixed(decimals)), uncertainty: uncertainty.toFixed(decimals) }
}

/** Return a share as a percentage: 0 % only where it is zero. */
export function toPercent(share: number): string {
  if (share === 0) return '0 %'
  if (share < 0.001) return 'under 0.1 %'
  return `${(100 * share).toFixed(share < 0.0995 ? 1 : 0)} %`
}

/** Return a time in minutes, or in seconds where it is shorter than one. */
export function minutesOrSeconds(minutes: number): string {
  if (minutes === 0) return '0'
  return minutes < 1 ? `${toDigits(60 * minutes, 2)} s` : `${toDigits(minutes, 2)} min`
}
