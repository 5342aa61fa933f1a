/** Words for what the server names by keys. */
export const INSTRUMENT_NAMES: Record<string, string> = {
  caliper: 'caliper',
  micrometer: 'micrometer',
  tape: 'tape',
  scale: 'scale',
  force_gauge: 'force gauge',
  pressure_gauge: 'pressure gauge',
  permeability_tester: 'permeability tester',
  microscope: 'microscope',
  none: 'counted',
}

export const PROVENANCE_NAMES: Record<string, string> = {
  measured: 'measured',
  derived: 'derived',
  published: 'published',
  by_eye: 'by eye',
  assumed: 'assumed',
}

export const STATE_NAMES: Record<string, string> = {
  not_measured: 'not measured',
  could_not_be_found: 'could not be found',
  out_of_date: 'refused as out of date',
  not_applicable: 'not applicable',
  withheld: 'withheld by the maker',
  lost: 'lost',
}

export const SPEAKER_NAMES: Record<string, string> = {
  maker: 'the maker',
  seller: 'a seller',
  independent: 'an independent',
  vehicle_maker: 'the vehicle maker',
}

export const SECTION_NAMES: Record<string, string> = {
  inlet: 'inlet holes',
  anti_drain: 'anti-drain gap',
  outlet: 'outlet bore',
  adapter: 'adapter holes',
}

/** Return a stored time as day and minute here. */
export function clock(iso: string): string {
  if (!iso.includes('T')) return iso
  const time = new Date(iso)
  if (Number.isNaN(time.getTime())) return iso
  const two = (number: number) => String(number).padStart(2, '0')
  const day = `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())}`
  return `${day} ${two(time.getHours())}:${two(time.getMinutes())}`
}

/** Return what a result rests on, such as "5 measured, 1 assumed". */
export function restsOn(counts: Readonly<Record<string, number>> | undefined): string {
  return Object.entries(PROVENANCE_NAMES)
    .filter(([key]) => counts?.[key])
    .map(([key, name]) => `${counts![key]} ${name}`)
    .join(', ')
}
