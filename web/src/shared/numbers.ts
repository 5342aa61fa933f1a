/** How a number is printed, by the rules of `core/numbers.py`; both are held against one table of cases. */
const MINUS = '−'
const MOST_DECIMALS = 12

/** A number with so many decimals, or rounded to tens, hundreds … where these are below zero; never minus zero. */
function fixed(value: number, decimals: number): string {
  const step = 10 ** Math.max(0, -decimals)
  const text = (Math.round(Math.abs(value) / step) * step).toFixed(0)
  const digits = decimals < 0 ? text : Math.abs(value).toFixed(Math.min(decimals, MOST_DECIMALS))
  return value < 0 && Number(digits) !== 0 ? MINUS + digits : digits
}

/** To which decimal a number has so many significant digits once it is rounded; below zero for tens, hundreds … */
function decimalsOf(value: number, digits: number): number {
  return value === 0 ? 0 : digits - 1 - Number(value.toExponential(digits - 1).split('e')[1])
}

/** Return a computed number to so many significant digits, zeros at its end among them. */
export function significant(value: number, digits = 3): string {
  if (!Number.isFinite(value)) return value > 0 ? '∞' : `${MINUS}∞`
  return fixed(value, Math.max(0, decimalsOf(value, digits)))
}

/** Return a number to so many significant digits at most, without an exponent; the digits of its whole part all stay. */
export function plainNumber(value: number, digits = 4): string {
  const text = significant(value, digits)
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text
}

/** Return a value rounded to the second significant digit of an uncertainty above 0. */
export function toUncertainty(value: number, uncertainty: number): string {
  return fixed(value, decimalsOf(uncertainty, 2))
}

export interface ShownValue {
  value: string
  uncertainty: string | null
}

/** Return value and uncertainty, which has two significant digits; both end at the same place. */
export function withUncertainty(value: number, uncertainty: number | null): ShownValue {
  if (uncertainty === null || !(uncertainty > 0)) return { value: plainNumber(value), uncertainty: null }
  return { value: toUncertainty(value, uncertainty), uncertainty: toUncertainty(uncertainty, uncertainty) }
}

/** Return a value with its uncertainty and unit; a percentage and a temperature bracket their numbers. */
export function numberWithUncertainty(value: number, uncertainty: number | null, unit = ''): string {
  const shown = withUncertainty(value, uncertainty)
  const text = shown.uncertainty === null ? shown.value : `${shown.value} ± ${shown.uncertainty}`
  return (shown.uncertainty !== null && ['%', '°C', '°F'].includes(unit) ? `(${text}) ${unit}` : `${text} ${unit}`).trim()
}

/** An end of an interval, with more decimals where it would round to 0 or to 100 %, which it is not. */
function end(value: number, decimals: number, unit: string): string {
  const isAway = (digits: number) => (value > 0 && Number(fixed(value, digits)) === 0) || (unit === '%' && value < 100 && Number(fixed(value, digits)) === 100)
  let digits = decimals
  while (digits < MOST_DECIMALS && isAway(digits)) digits += 1
  return fixed(value, digits)
}

/** Return an interval about a value to two digits of its half-width or of the value; empty where it has no width. */
export function intervalAbout(value: number, low: number, high: number, unit = ''): { value: string; interval: string } {
  const half = (high - low) / 2
  if (!(half > 0 && Number.isFinite(half))) return { value: plainNumber(value), interval: '' }
  const decimals = Math.max(decimalsOf(half, 2), decimalsOf(value || half, 2))
  return { value: fixed(value, decimals), interval: `${end(low, decimals, unit)} to ${end(high, decimals, unit)}` }
}

/** Return a value with an interval that need not be symmetric. */
export function numberWithInterval(value: number, low: number, high: number, unit = ''): string {
  const shown = intervalAbout(value, low, high, unit)
  return shown.interval ? `${shown.value} (${shown.interval})` : shown.value
}

export interface Estimated {
  value: number | null
  low: number | null
  high: number | null
}

/** Return a number with its interval, a number alone, an interval alone or a bound, whichever is known. */
export function shownNumber({ value, low, high }: Estimated, digits = 3): string {
  if (value !== null) return low !== null && high !== null ? numberWithInterval(value, low, high) : significant(value, digits)
  if (low !== null && high !== null) return interval(low, high, digits)
  if (low !== null) return `≥ ${bound(low, digits, 'lower')}`
  return high !== null ? `≤ ${bound(high, digits, 'upper')}` : 'not known'
}

/** Return an interval or a bound, rounded outwards so that it still holds. */
export function interval(low: number | null, high: number | null, digits = 3): string {
  const ends = [low === null ? '' : bound(low, digits, 'lower'), high === null ? '' : bound(high, digits, 'upper')]
  return ends[0] && ends[1] ? ends.join(' to ') : ends[0] ? `at least ${ends[0]}` : `at most ${ends[1]}`
}

/** Return a bound to so many significant digits at most, rounded to the side on which it still holds. */
export function bound(value: number, digits: number, side: 'lower' | 'upper'): string {
  if (!Number.isFinite(value)) return significant(value)
  const step = 10 ** -Math.max(0, decimalsOf(value, digits))
  const steps = side === 'lower' ? Math.floor(value / step + 1e-9) : Math.ceil(value / step - 1e-9)
  return plainNumber(steps * step, digits + 1)
}

/** Return a difference with its sign, none for zero. */
export function signedNumber(value: number, digits = 4): string {
  const text = plainNumber(value, digits)
  return value > 0 && text !== '0' ? `+${text}` : text
}

/** Return a share as a percentage: 0 % only where it is zero. */
export function toPercent(share: number): string {
  const size = Math.abs(share)
  if (size > 0 && size < 0.001) return 'under 0.1 %'
  return `${fixed(100 * share, size > 0 && size < 0.0995 ? 1 : 0)} %`
}

/** Return a time in minutes, or in seconds where it is shorter than one. */
export function minutesOrSeconds(minutes: number): string {
  if (minutes === 0) return '0'
  return minutes < 1 ? `${significant(60 * minutes, 2)} s` : `${significant(minutes, 2)} min`
}
