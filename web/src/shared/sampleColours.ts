import { catalogue } from '@/catalogue/catalogue'

/** The colour that follows a sample through every picture, on paper too; never its only sign. */
export function sampleColour(index: number): string {
  const colours = catalogue().sample_colours
  return colours[index % colours.length]!
}
