/** A sheet after a change. */
import type { Schemas } from '@/api/client'

export type Sheet = Schemas['SheetOut']

/** Return the sheet that the server has, from the one it was told that this window has; what did not change stays the same object. */
export function withChanges(sheet: Sheet, { fields, observations, parts, ...members }: Schemas['SheetChangesOut']): Sheet {
  const field = new Map(fields.map((one) => [one.key, one]))
  const seen = new Map(observations.map((one) => [one.key, one]))
  const renewed = sheet.parts.map((part) => {
    const touched = part.fields.some((one) => field.has(one.key)) || part.observations.some((one) => seen.has(one.key))
    if (!touched) return part
    return {
      ...part,
      fields: part.fields.map((one) => field.get(one.key) ?? one),
      observations: part.observations.map((one) => seen.get(one.key) ?? one),
    }
  })
  return { ...sheet, ...(members as Partial<Sheet>), parts: parts ?? renewed }
}
