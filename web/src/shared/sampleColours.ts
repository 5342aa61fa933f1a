/** The colour that follows a sample through every picture; never its only sign. */
const COLOURS = ['#4a5bb0', '#3f8146', '#a23f7c', '#86672a', '#23808f', '#6d6478'] as const

export function sampleColour(index: number): string {
  return COLOURS[index % COLOURS.length]!
}
