/** The stations of the work, and how far each is filled. */
import { inject, provide, type InjectionKey } from 'vue'
import type { Sheet } from './useSheet'
import { catalogue, details, type Catalogue } from '@/catalogue/catalogue'
import { refusedOf } from '@/shared/useTyped'

export interface Station {
  name: string
  title: string
  /** 0 empty to 1 full. */
  fill: number
  progress: string
  /** How many of its texts were refused and stand as they were typed. */
  waits: number
}

const NEXT: InjectionKey<() => void> = Symbol('next station')

/** Say how the next station of the work is opened. */
export function provideNextStation(go: () => void): void {
  provide(NEXT, go)
}

/** Return what goes to the next field, and after the last one to the next station; an arrow stays. */
export function useNext(stops: { step: (by: 1) => boolean }): (isArrow?: boolean) => void {
  const toNextStation = inject(NEXT, () => undefined)
  return (isArrow = false) => {
    if (!stops.step(1) && !isArrow) toNextStation()
  }
}

/** Basis of the efficiency, in a word. */
const EFFICIENCY_FROM: Readonly<Record<string, string>> = { counts: 'counted', claim: 'claim', estimate: 'estimate' }

/** Return where a key of a reading, a detail or an observation is entered; any other key belongs to the media. */
export function stationOfKey(key: string, sheet: Sheet | undefined): string {
  const detail = details().get(key)
  if (detail) return detail.stage === 'warm_up' ? 'start' : (detail.stage)
  if (key.startsWith('oil.')) return 'engine'
  if (key === 'scenarios') return 'map'
  if (key === 'claims') return 'intake'
  if (key === 'uses') return 'comparison'
  if (key === 'report') return 'report'
  if (key === 'cut') return 'cut'
  if (key === 'counts') return 'efficiency'
  const part = sheet?.parts.find(
    (candidate) =>
      candidate.key === key ||
      candidate.fields.some((field) => field.key === key) ||
      candidate.observations.some((observation) => observation.key === key),
  )
  const at = part ?? sheet?.parts.find((candidate) => candidate.key === key.split('.')[0])
  if (at) return at.stage
  if (key.startsWith('holes.centre_tube')) return 'element'
  return key.startsWith('holes.') ? 'outside' : 'media'
}

function share(done: number, all: number): { fill: number; progress: string } {
  return { fill: all ? done / all : 0, progress: `${done} of ${all}` }
}

/** Return how much of a stage's readings and observations is answered. */
export function stageProgress(sheet: Sheet, stage: string): { fill: number; progress: string } {
  const parts = sheet.parts.filter((part) => part.stage === stage)
  const fields = parts.flatMap((part) => part.fields)
  const observations = parts.flatMap((part) => part.observations)
  const done =
    fields.filter((field) => field.estimate || field.state).length + observations.filter((observation) => observation.value).length
  return share(done, fields.length + observations.length)
}

/** Key of a row of the short sheet: that of its usual way. */
export const shortKey = (row: Catalogue['short_sheet'][number]) => row.ways[0]!.keys[0]!

/** Return whether a row of the short sheet is answered by its own field. */
export function isAnswered(sheet: Sheet, key: string): boolean {
  if (key === 'oil') return sheet.details['oil.density'] !== undefined
  if (key.startsWith('holes.')) return sheet.parts.some((part) => part.key.startsWith(`${key}[`))
  return sheet.parts.some(
    (part) =>
      part.fields.some((field) => field.key === key && (field.estimate ?? field.bound ?? field.state)) ||
      part.observations.some((observation) => observation.key === key && observation.value !== null),
  )
}

/** Return at which station each text of a sample stands that was refused. */
export function refusedAt(sampleId: number, sheet: Sheet | undefined): string[] {
  return refusedOf(sampleId).map((key) => stationOfKey(key.replace(/^add\//, 'holes.').replace(/^words\//, ''), sheet))
}

/** Return the stations; whether a map can be computed is known from what the sheet still needs. */
export function stationsOf(sheet: Sheet | undefined, refused: readonly string[] = []): Station[] {
  const ready = sheet?.needs.map.length === 0
  const alone = sheet?.needs.filter_alone.length === 0
  return catalogue().stations.map(({ name, title }) => {
    const station = { name, title, fill: 0, progress: '', waits: refused.filter((at) => at === name).length }
    if (!sheet) return station
    if (name === 'map')
      return {
        ...station,
        fill: ready ? 1 : alone ? 0.5 : 0,
        progress: ready ? 'ready' : alone ? 'filter alone' : 'needs more',
      }
    if (name === 'report') return { ...station, fill: ready ? 1 : alone ? 0.5 : 0, progress: '' }
    if (name === 'comparison' || name === 'start') return { ...station, fill: ready ? 1 : 0, progress: ready ? '' : 'needs more' }
    if (name === 'efficiency') {
      const { basis, value, low, high } = sheet.analysis.results.efficiency_at_20_um_percent
      const known = value !== null || low !== null || high !== null
      return { ...station, fill: !known ? 0 : basis === 'counts' ? 1 : 0.5, progress: known ? (EFFICIENCY_FROM[basis ?? ''] ?? '') : '' }
    }
    if (name === 'engine') return { ...station, ...share(catalogue().map_needs.filter((key) => sheet.details[key]).length, catalogue().map_needs.length) }
    if (name === 'short') {
      const rows = catalogue().short_sheet
      const open = new Set(sheet.needs.filter_alone.map((need) => need.title))
      const done = rows.filter((row) => isAnswered(sheet, shortKey(row)) || (!row.without && !open.has(row.title)))
      return { ...station, ...share(done.length, rows.length) }
    }
    if (name === 'intake') {
      const wanted = catalogue().details.filter((detail) => detail.stage === 'intake' && !/adapter|least|greatest|used_/.test(detail.key))
      return { ...station, ...share(wanted.filter((detail) => sheet.details[detail.key]).length, wanted.length) }
    }
    if (name === 'cut') {
      const missing = sheet.before_cut.missing.length
      if (sheet.before_cut.cut) return { ...station, fill: 1, progress: 'cut' }
      return { ...station, fill: 0, progress: missing ? `${missing} missing` : 'ready to cut' }
    }
    return { ...station, ...stageProgress(sheet, name) }
  })
}
