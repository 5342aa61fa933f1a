/** Changes by day, and the copies that hold them, on one axis of days. */
import { scaleLinear } from 'd3-scale'
import type { Schemas } from '@/api/client'

const DAY_MS = 86_400_000
/** The axis never shows less, nor more. */
const FEWEST_DAYS = 14
const MOST_DAYS = 60

export interface Timeline {
  bars: { x: number; y: number; width: number; height: number; day: string; changes: number }[]
  pins: { x: number; name: string; words: string; safe: boolean }[]
  ticks: { x: number; words: string }[]
  tallest: number
}

/** Midnight of a day as the person's clock has it, in ms. */
function midnight(day: string): number {
  const [year, month, date] = day.slice(0, 10).split('-').map(Number)
  return new Date(year!, month! - 1, date).getTime()
}

/** Place days and copies within a width and a height. [px] */
export function timeline(
  backups: Pick<Schemas['BackupsOut'], 'days' | 'copies'>,
  width: number,
  height: number,
  now = new Date(),
): Timeline {
  const today = new Date(now.getFullYear(), now.getMonth(), now.getDate()).getTime()
  const moments = [...backups.days.map((day) => midnight(day.day)), ...backups.copies.map((copy) => new Date(copy.made).getTime())]
  const earliest = Math.max(today - (MOST_DAYS - 1) * DAY_MS, Math.min(today - (FEWEST_DAYS - 1) * DAY_MS, ...moments))
  const x = scaleLinear([earliest, today + DAY_MS], [0, width])
  const tallest = Math.max(1, ...backups.days.map((day) => day.changes))
  const y = scaleLinear([0, tallest], [0, height])
  const dayWidth = x(earliest + DAY_MS)
  const count = Math.round((today - earliest) / DAY_MS)
  const every = Math.ceil(count / 7)
  return {
    bars: backups.days
      .filter((item) => midnight(item.day) >= earliest)
      .map((item) => ({ ...item, x: x(midnight(item.day)) + 1, y: height - y(item.changes), width: Math.max(2, dayWidth - 2), height: y(item.changes) })),
    pins: backups.copies
      .filter((item) => new Date(item.made).getTime() >= earliest)
      .map((item) => ({ x: x(new Date(item.made).getTime()), name: item.name, words: item.words, safe: item.changes_missing === 0 && !item.studies_missing.length })),
    ticks: Array.from({ length: Math.floor(count / every) + 1 }, (_, i) => {
      const at = new Date(today - i * every * DAY_MS)
      return { x: x(at.getTime()) + dayWidth / 2, words: i === 0 ? 'today' : at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' }) }
    }),
    tallest,
  }
}

/** A size as a person reads it. */
export function fileSize(bytes: number): string {
  if (bytes >= 1e9) return `${(bytes / 1e9).toFixed(1)} GB`
  return bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(bytes / 1e3)} kB`
}

/** Changes that a copy lacks, in a few words. */
export function lacks(copy: Schemas['CopyOut']): string {
  if (copy.changes_missing === null) return 'cannot be told: the database is not readable'
  const changes = copy.changes_missing ? `${copy.changes_missing} ${copy.changes_missing === 1 ? 'change' : 'changes'}` : ''
  const named = copy.last_missing.length ? ` (the last: ${copy.last_missing.slice(0, 3).join('; ')})` : ''
  const studies = copy.studies_missing.length ? `${copy.studies_missing.length === 1 ? 'the study' : 'the studies'} ${copy.studies_missing.slice(0, 3).join(', ')}` : ''
  const reports = copy.reports_missing.length ? `the issued ${copy.reports_missing.length === 1 ? 'report' : 'reports'} ${copy.reports_missing.slice(0, 3).join(', ')}` : ''
  return [changes + named, studies, reports].filter(Boolean).join(' and ') || 'nothing'
}
