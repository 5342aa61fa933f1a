/** Circle to highlight in the drawing of the plate while a key is being typed. */
import { terms } from '@/catalogue/catalogue'

const DRAWN_AS: Record<string, string> = {
  'can.circumference': 'can.outside_diameter',
  'thread.pitch': 'thread.minor_diameter',
  'engine.stud_bore': 'circuit.stud',
  'engine.least_stud_bore': 'circuit.stud.least',
  'engine.greatest_stud_bore': 'circuit.stud.greatest',
}

export interface Lit {
  /** The circle lit up. */
  circle: string | null
  /** The group of holes lit up. */
  group: number | null
  /** Which size of its holes. */
  size: string | null
}

/** Return what lights up in the drawing of the plate while a key is being typed. */
export function litBy(key: string): Lit {
  const hole = /^holes\.inlet\[(\d+)\](?:\.(\w+))?$/.exec(key)
  if (hole) return { circle: null, group: Number(hole[1]), size: hole[2] ?? null }
  const circle = DRAWN_AS[key] ?? key
  return { circle: circle in terms('plate_circle') ? circle : null, group: null, size: null }
}
