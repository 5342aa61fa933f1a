/** A sheet after a change. */
import type { Schemas } from '@/api/client'

export type Sheet = Schemas['SheetOut']

/** Return the sheet that the server has, from the one it was told that this window has; what did not change stays the same object. */
export function withChanges(sheet: Sheet, { fields, observations, parts, ...members }: Schemas['SheetChangesOut']): Sheet {
  const field = new Map(fields.map((field) => [field.key, field]))
  const seen = new Map(observations.map((observation) => [observation.key, observation]))
  const renewed = sheet.parts.map((part) => {
    const touched = part.fields.some((item) => field.has(item.key)) || part.observations.some((observation) => seen.has(observation.key))
    if (!touched) return part
    return {
      ...part,
      fields: part.fields.map((item) => field.get(item.key) ?? item),
      observations: part.observations.map((observation) => seen.get(observation.key) ?? observation),
    }
  })
  return { ...sheet, ...(members as Partial<Sheet>), parts: parts ?? renewed }
}
