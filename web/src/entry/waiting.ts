/** Readings that wait for an answer: those that were refused and stand as they were typed, and those that are questioned. */
import type { Schemas } from '@/api/client'
import { refusedOf, typedId } from '@/shared/useTyped'

export function waitingWords(sampleId: number, parts: readonly Schemas['PartOut'][], placements: readonly string[]): string {
  const refused = refusedOf([
    ...parts.flatMap((part) => part.fields.map((field) => typedId(sampleId, field.key, part.hole_group?.id))),
    ...placements.map((placement) => typedId(sampleId, `add/${placement}`)),
  ])
  const questioned = parts.flatMap((part) => part.fields.filter((field) => field.warnings.some((warning) => warning.reading_id && !warning.confirmed)))
  const count = refused.length + questioned.length
  return count ? `${count} ${count === 1 ? 'reading waits' : 'readings wait'} for an answer.` : ''
}
