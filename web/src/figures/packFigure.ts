/** The pleat pack seen end-on, to scale, in millimetres. */
import type { Schemas } from '@/api/client'

type Pack = Schemas['DrawnPackOut']

/** Return the pleated media as one closed path: out and in, once for every pleat. */
export function pleatPath(pack: Pack): string {
  const outer = pack.outside_diameter_mm / 2 - pack.thickness_mm / 2
  const inner = Math.max(pack.outside_diameter_mm / 2 - pack.depth_mm, 1) + pack.thickness_mm / 2
  const points: string[] = []
  for (let i = 0; i < 2 * pack.count; i += 1) {
    const angle = (Math.PI * i) / pack.count - Math.PI / 2
    const r = i % 2 ? inner : outer
    points.push(`${(r * Math.cos(angle)).toFixed(3)} ${(r * Math.sin(angle)).toFixed(3)}`)
  }
  return `M${points.join('L')}Z`
}

/** Return what the drawing means for the room between the pleats. */
export function crowdingWords(pack: Pack): string {
  const open = pack.opening_percent
  if (pack.crowding === 'unknown') return 'Dashed: not measured, at a typical size.'
  if (pack.crowding === 'cannot_fit') return `The pack cannot fit: its faces would need ${(100 - open).toFixed(0)} % of the inside circumference.`
  const words = `${open.toFixed(0)} % of the inside circumference is open between the pleats`
  return pack.crowding === 'crowded' ? `Only ${words}: crowded.` : `${words}.`
}
