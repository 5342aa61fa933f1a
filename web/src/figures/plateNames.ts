/** Words for the circles of the plate, and the reading or detail each is entered in. */
export const CIRCLE_NAMES: Record<string, string> = {
  'can.outside_diameter': 'rim, outside diameter of the can',
  'gasket.outside_diameter': 'gasket, outside',
  'gasket.inside_diameter': 'gasket, inside',
  'thread.major_diameter': 'thread, major diameter',
  'thread.minor_diameter': 'thread, minor diameter',
  'anti_drain.lip_diameter': 'lip of the anti-drain valve',
  'plate.centre_hole_diameter': 'centre hole',
  'circuit.stud': 'bore of the stud',
  'circuit.stud.least': 'least stud bore',
  'circuit.stud.greatest': 'greatest stud bore',
}

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
  return { circle: circle in CIRCLE_NAMES ? circle : null, group: null, size: null }
}
