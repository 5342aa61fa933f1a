/** Inputs of results and maps in words, and where each is entered. */
import { catalogue, details, term, terms } from './catalogue'

/** Return what a person calls an input: the title of its field, or words of its own. */
export function inputName(key: string, titles: ReadonlyMap<string, string>): string {
  return titles.get(key) ?? details().get(key)?.title ?? term('input', key)
}

/** Return the field of the bench, of intake or of the engine that an input is entered in, if there is one. */
export function fieldOf(key: string, titles: ReadonlyMap<string, string>): string | null {
  if (titles.has(key) || details().has(key)) return key
  const field = catalogue().input_fields[key]
  if (field) return field
  return [...titles.keys()].find((known) => known.startsWith(`${key}[`) || known.startsWith(`${key}.`)) ?? null
}

/** Say what something still needs, the first few by name. */
export function needsWords(problem: string, missing: readonly string[], titles: ReadonlyMap<string, string>, most = 4): string {
  if (!missing.length) return problem
  const named = missing.slice(0, most).map((key) => inputName(key, titles))
  const more = missing.length - named.length
  return `needs ${named.join(', ')}${more > 0 ? ` and ${more} more` : ''}`
}

/** Say how many inputs of each provenance there are, such as "5 measured, 1 assumed". */
export function countWords(counts: Readonly<Record<string, number>> | undefined): string {
  return Object.entries(terms('provenance'))
    .filter(([key]) => counts?.[key])
    .map(([key, name]) => `${counts![key]} ${name}`)
    .join(', ')
}
