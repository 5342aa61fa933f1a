/** Readings that wait for an answer: those that were refused and stand as they were typed, and those that are questioned. */
import type { Schemas } from '@/api/client'

/** Return how many do, of the parts of one station and the texts refused there. */
export function waitingWords(parts: readonly Schemas['PartOut'][], refused: number): string {
  const questioned = parts.flatMap((part) => part.fields.filter((field) => field.warnings.some((warning) => warning.reading_id && !warning.confirmed)))
  const count = refused + questioned.length
  return count ? `${count} ${count === 1 ? 'reading waits' : 'readings wait'} for an answer.` : ''
}
