/** Words for inputs that are no field of the bench. */
const NAMES: Record<string, string> = {
  oil: 'the oil',
  'oil.viscosity': "the oil's viscosity points",
  'oil.density': "the oil's density",
  'circuit.cooler': 'the cooler',
  'circuit.head': 'the filter head',
  'circuit.adapter': 'the adapter',
  'circuit.regulator.opening_kpa': "the regulator's opening pressure",
  'circuit.engine.gallery_kpa': 'the hot gallery pressure',
  'circuit.pump_displacement_cm3_rev': "the pump's displacement",
  'circuit.pump_efficiency': "the pump's efficiency",
  'circuit.regulator': 'the pressure regulator',
  'circuit.engine': "the engine's hot point (gallery pressure at a speed and temperature)",
  'circuit.stud': "the engine's stud",
  'circuit.adapter.holes': "the adapter's holes",
  'holes.inlet': 'the inlet holes',
  'holes.centre_tube': "the centre tube's holes",
  media_family: 'the media family',
  media_air_drop_pa: 'the differential pressure of the air test',
  'bypass.spring_material': 'the spring material',
  'bypass.spring_rate': 'the spring rate',
  'bypass.stated_kpa': 'what the stated band means',
  'bypass.location': 'the place of the bypass valve',
}

/** Return what a person calls an input: the title of its field, or words of its own. */
export function inputName(key: string, titles: ReadonlyMap<string, string>): string {
  return titles.get(key) ?? NAMES[key] ?? key
}

/** Details and observations that an input is entered as. */
const DETAILS: Record<string, string> = {
  oil: 'oil.name',
  'oil.viscosity': 'oil.name',
  'oil.density': 'oil.density',
  'circuit.pump_displacement_cm3_rev': 'engine.pump_displacement',
  'circuit.pump_efficiency': 'engine.pump_efficiency',
  'circuit.regulator': 'engine.regulator_opening',
  'circuit.regulator.opening_kpa': 'engine.regulator_opening',
  'circuit.engine': 'engine.gallery',
  'circuit.engine.gallery_kpa': 'engine.gallery',
  media_family: 'media.family',
  media_air_drop_pa: 'media.air_drop',
  'bypass.location': 'bypass.location',
  'bypass.spring_material': 'bypass.spring_material',
  'circuit.stud': 'engine.stud_bore',
  'circuit.adapter.holes': 'engine.adapter_holes',
  'bypass.stated_kpa': 'sample.stated_bypass',
}

/** Return the field of the bench or of intake that an input is entered in, if there is one. */
export function fieldOf(key: string, titles: ReadonlyMap<string, string>): string | null {
  if (titles.has(key)) return key
  if (DETAILS[key]) return DETAILS[key]
  if (key === 'holes.inlet' || key === 'holes.centre_tube') return key
  return [...titles.keys()].find((known) => known.startsWith(`${key}[`) || known.startsWith(`${key}.`)) ?? null
}

/** Say what something still needs, the first few by name. */
export function needsWords(problem: string, missing: readonly string[], titles: ReadonlyMap<string, string>, most = 4): string {
  if (!missing.length) return problem
  const named = missing.slice(0, most).map((key) => inputName(key, titles))
  const more = missing.length - named.length
  return `needs ${named.join(', ')}${more > 0 ? ` and ${more} more` : ''}`
}
