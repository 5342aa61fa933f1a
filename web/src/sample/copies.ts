/** Copied facts of a sample that are not confirmed; the frame of the study provides them, each field looks for its own. */
import { computed, inject, provide, type ComputedRef, type InjectionKey } from 'vue'
import type { Schemas } from '@/api/client'
import type { Sheet } from './useSheet'

interface Copies {
  /** From what, by thing. */
  copied: ComputedRef<Readonly<Record<string, string>>>
  confirm: (things: readonly string[]) => Promise<unknown>
}

const COPIES: InjectionKey<Copies> = Symbol('copies')
const NOTHING: Copies = { copied: computed(() => ({})), confirm: () => Promise.resolve() }

export function provideCopies(copies: Copies): void {
  provide(COPIES, copies)
}

/** Return which of some things are copied, from what, and how they are confirmed. */
export function useCopied(things: () => readonly string[]) {
  const { copied, confirm } = inject(COPIES, NOTHING)
  const open = computed(() => things().filter((thing) => thing in copied.value))
  const origin = computed(() => (open.value.length ? copied.value[open.value[0]!]! : ''))
  return { open, origin, confirm }
}

/** Readings of a field that are copied and computed with: one that has given way to a better one need not be confirmed. */
function copiedReadings(field: Schemas['FieldOut']): Schemas['ReadingOut'][] {
  return field.readings.filter((reading) => reading.copied_from !== null && reading.used && reading.set_aside_reason === null)
}

/** Everything of a sheet that is copied, by thing: facts, groups of holes, claims, readings. */
export function everythingCopied(sheet: Sheet | undefined): Record<string, string> {
  if (!sheet) return {}
  const readings = sheet.parts.flatMap((part) => part.fields.flatMap(copiedReadings))
  return { ...sheet.copied, ...Object.fromEntries(readings.map((reading) => [`readings/${reading.id}`, reading.copied_from!])) }
}

/** Things of a field: its readings, and why there is none. */
export function thingsOfField(field: Schemas['FieldOut']): string[] {
  return [...field.readings.map((reading) => `readings/${reading.id}`), `states/${field.key}`]
}

/** Things of a part of the sheet. */
export function thingsOfPart(part: Schemas['PartOut']): string[] {
  return [
    ...(part.hole_group ? [`holes/${part.hole_group.id}`] : []),
    ...part.fields.flatMap(thingsOfField),
    ...part.observations.map((observation) => `observations/${observation.key}`),
  ]
}
