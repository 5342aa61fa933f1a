/** The parts of the engine's circuit: which details belong to each, and what of them is written in the drawing. */
export interface CircuitPart {
  name: string
  title: string
  details: readonly string[]
  /** Details written beside the part. */
  shown: readonly string[]
}

const of = (...names: string[]) => names.map((name) => `engine.${name}`)

export const CIRCUIT_PARTS: readonly CircuitPart[] = [
  { name: 'engine', title: 'Engine', details: of('name', 'provenance'), shown: [] },
  {
    name: 'pump',
    title: 'Pump',
    details: of('pump_displacement', 'pump_efficiency', 'pump_efficiency_speed', 'pump_efficiency_pressure', 'pump_efficiency_temperature'),
    shown: of('pump_displacement', 'pump_efficiency'),
  },
  {
    name: 'regulator',
    title: 'Regulator',
    details: of('regulator_opening', 'regulator_rise', 'regulator_speed', 'regulator_sense', 'safety'),
    shown: of('regulator_opening', 'regulator_rise'),
  },
  {
    name: 'cooler',
    title: 'Cooler',
    details: of('cooler_loss', 'cooler_flow', 'cooler_temperature', 'cooler_viscous_share', 'cooler_bypass'),
    shown: of('cooler_loss', 'cooler_flow'),
  },
  {
    name: 'head',
    title: 'Filter head',
    details: of('head_loss', 'head_flow', 'head_temperature', 'head_viscous_share'),
    shown: of('head_loss', 'head_flow'),
  },
  { name: 'stud', title: 'Stud', details: of('stud_bore', 'stud_length', 'least_stud_bore', 'greatest_stud_bore'), shown: of('stud_bore') },
  { name: 'adapter', title: 'Adapter', details: of('adapter_holes', 'adapter_reference_bore'), shown: of('adapter_holes') },
  {
    name: 'gallery',
    title: 'Hot gallery',
    details: of('gallery', 'gallery_speed', 'gallery_temperature', 'bearing_rise', 'bearing_heating'),
    shown: of('gallery', 'gallery_speed'),
  },
  { name: 'jets', title: 'Piston jets', details: of('jet_share', 'jet_opening', 'jet_count'), shown: of('jet_share', 'jet_opening') },
  { name: 'gauge', title: 'Gauge tap', details: of('gauge'), shown: [] },
]

/** Which part of the drawing a detail belongs to. */
export function partOfDetail(key: string): string | null {
  return CIRCUIT_PARTS.find((part) => part.details.includes(key))?.name ?? null
}
