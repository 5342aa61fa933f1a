import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { withChanges, type Sheet } from './sheetChanges'

const field = (key: string, state: string | null = null) => ({ key, state, readings: [] }) as unknown as Schemas['FieldOut']
const part = (key: string, ...keys: string[]) =>
  ({ key, fields: keys.map((item) => field(item)), observations: [{ key: `${key}.seen`, value: null }], hole_group: null }) as unknown as Schemas['PartOut']
const sheet = {
  revision: 3, label: 'A', shelf: 'old', undo: { change_id: 1, words: 'x', is_own: true }, parts: [part('can', 'can.height', 'can.mass'), part('media', 'media.strip_length')],
} as unknown as Sheet

describe('what a change makes of a sheet', () => {
  it('takes over changed fields and members, and leaves every other object the same', () => {
    const changed = withChanges(sheet, { revision: 4, fields: [field('can.mass', 'lost')], observations: [], undo: null, redo: null, shelf: null })
    expect([changed.revision, changed.label, changed.shelf, changed.undo]).toEqual([4, 'A', null, null])
    expect(changed.parts[0]!.fields.map((field) => field.state)).toEqual([null, 'lost'])
    expect(changed.parts[0]!.fields[0]).toBe(sheet.parts[0]!.fields[0])
    expect(changed.parts[1]).toBe(sheet.parts[1])
    expect(sheet.parts[0]!.fields[1]!.state).toBe(null) // never in place
  })
  it('takes over what was seen, and all parts where one came or went', () => {
    const seen = withChanges(sheet, { revision: 4, fields: [], observations: [{ key: 'media.seen', value: 'torn' }] })
    expect(seen.parts[1]!.observations[0]!.value).toBe('torn')
    expect(withChanges(sheet, { revision: 5, fields: [], observations: [], parts: [part('can')] }).parts.map((part) => part.key)).toEqual(['can'])
  })
})
