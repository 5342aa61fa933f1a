/** Lines of a use found again by what they are: another window may have removed one above, and a place would be another line. */
import { ProblemError } from '@/api/client'

export interface Line {
  measure: string
  name?: string | null
}

const isLike = (line: Line, other: Line) => line.measure === other.measure && (line.name ?? null) === (other.name ?? null)

/** Keys by which lines keep their fields: the measure, and the how-many-eth of it. */
export function lineKeys(lines: readonly Line[]): string[] {
  return lines.map(({ measure }, i) => `${measure} ${lines.slice(0, i).filter((line) => line.measure === measure).length}`)
}

/** Return lines in which one line, as it was seen among `seen`, has become another, or is gone. */
export function withLine<T extends Line>(now: readonly T[], seen: readonly T[], at: number, become: (line: T) => T | null): T[] {
  const line = seen[at]!
  const before = seen.slice(0, at).filter((other) => isLike(other, line)).length
  const places = now.flatMap((other, i) => (isLike(other, line) ? [i] : []))
  const place = places[before]
  if (place === undefined) {
    const detail = 'Another window has changed or removed this line meanwhile: look, then do it again.'
    throw new ProblemError({ detail, where: '', missing: [] }, 412)
  }
  const changed = become(now[place]!)
  return now.flatMap((other, i) => (i !== place ? [other] : changed ? [changed] : []))
}
