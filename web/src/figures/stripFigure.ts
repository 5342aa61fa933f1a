/** The strip laid flat, to scale, in millimetres: cut into rows that fit beside the readings. */
import type { Schemas } from '@/api/client'

type Strip = Schemas['StripAreasOut']

export interface StripPatch {
  key: string
  x: number
  y: number
  width: number
  height: number
}

export interface StripRow {
  y: number
  length: number
  patches: StripPatch[]
}

export interface StripFigure {
  rows: StripRow[]
  width: number
  height: number
}

const GAP_SHARE = 0.12

/** Patches of the whole strip that are lost, x along it from the seam. */
function lostParts(strip: Strip): StripPatch[] {
  const open = strip.width_mm - 2 * strip.potting_mm
  const blockedArea = strip.deductions.find((deduction) => deduction.key === 'media.blocked_area')?.area_cm2 ?? 0
  const whole = { y: strip.potting_mm, height: open }
  const parts: StripPatch[] = [
    { key: 'element.potting_depth', x: 0, y: 0, width: strip.length_mm, height: strip.potting_mm },
    { key: 'element.potting_depth', x: 0, y: strip.width_mm - strip.potting_mm, width: strip.length_mm, height: strip.potting_mm },
    { key: 'media.seam_overlap', x: 0, width: strip.overlap_mm, ...whole },
    { key: 'media.blocked_pleats', x: strip.length_mm - strip.blocked_length_mm, width: strip.blocked_length_mm, ...whole },
  ]
  const patch = open > 0 ? Math.min((100 * blockedArea) / open, strip.length_mm - strip.overlap_mm - strip.blocked_length_mm) : 0
  parts.push({ key: 'media.blocked_area', x: strip.overlap_mm + (strip.length_mm - strip.overlap_mm) / 2 - patch / 2, width: patch, ...whole })
  return parts.filter((part) => part.width > 0 && part.height > 0)
}

/** Lay the strip out in as many rows as make the drawing about as tall as wide. */
export function stripFigure(strip: Strip, aspect = 1.35): StripFigure {
  const gap = GAP_SHARE * strip.width_mm
  const count = Math.min(12, Math.max(1, Math.round(Math.sqrt(strip.length_mm / (aspect * (strip.width_mm + gap))))))
  const row = strip.length_mm / count
  const parts = lostParts(strip)
  const rows = Array.from({ length: count }, (_, i) => {
    const [from, to] = [i * row, (i + 1) * row]
    const y = i * (strip.width_mm + gap)
    const patches = parts.flatMap((part) => {
      const [left, right] = [Math.max(part.x, from), Math.min(part.x + part.width, to)]
      return right > left ? [{ ...part, x: left - from, y: y + part.y, width: right - left }] : []
    })
    return { y, length: row, patches }
  })
  return { rows, width: row, height: count * strip.width_mm + (count - 1) * gap }
}
