/** Lines of a use found again by what they are: another window may have removed one above, and a place would be another line. */
import { ProblemError } from '@/api/client'

export interface Line {
  measure: string
  name?: string | null
}

const isLike = (one: Line, other: Line) => one.measure === other.measure && (one.name ?? null) === (other.name ?? null)

/** Keys by which lines keep their fields: the measure, and the how-many-eth of it. */
export function lineKeys(lines: readonly Line[]): string[] {
  return lines.map(({ measure }, i) => `${measure} ${lines.slice(0, i).filter((line) => line.measure === measure).length}`)
}

/** Return lines in which one, as it was seen among `seen`, has become another, or is gone. */
export function withLine<T extends Line>(now: readonly T[], seen: readonly T[], at: number, become: (one: T) => T | null): T[] {
  const one = seen[at]!
  const before = seen.slice(0, at).filter((other) => isLike(other, one)).length
  const places = now.flatMap((other, i) => (isLike(other, one) ? [i] : []))
  const place = places[before]
  if (place === undefined) {
    const detail = 'Another window has changed or removed this line meanwhile: look, then do it again.'
    throw new ProblemError({ detail, where: '', missing: [] }, 412)
  }
  const changed = become(now[place]!)
  return now.flatMap((other, i) => (i !== place ? [other] : changed ? [changed] : []))
}
