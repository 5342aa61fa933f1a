/** Entries of the box that finds things in a study: stations, samples, parts, readings, details, things seen, workings. */
import type { Schemas } from '@/api/client'
import { catalogue } from '@/catalogue/catalogue'
import type { Sheet } from '@/sample/useSheet'
import type { Found } from '@/shared/search'

interface Sources {
  sheet: Sheet | undefined
  samples: readonly Schemas['SampleTagOut'][]
  pick: (sampleId: number) => void
  field: (key: string) => void
  go: (station: string) => void
  working: (result: string) => void
  explain: (term: string) => void
}

/** Return the entries, those people ask for most first. */
export function commandEntries(from: Sources): Found[] {
  const firstOf = (part: string) => {
    const match = from.sheet?.parts.find((item) => item.key === part || item.key.startsWith(`${part}[`))
    return match?.fields[0]?.key ?? match?.observations[0]?.key ?? part
  }
  return [
    ...catalogue().stations.map((item) => ({
      title: `Go to ${item.title.toLowerCase()}`,
      kind: 'station',
      words: [item.title, item.name, ...item.synonyms],
      run: () => from.go(item.name),
    })),
    ...from.samples.map((sample) => ({
      title: sample.label,
      kind: 'sample',
      words: [sample.maker ?? '', sample.part_number ?? ''].filter(Boolean),
      run: () => from.pick(sample.id),
    })),
    ...catalogue().parts.map((part) => ({
      title: part.title,
      kind: 'part',
      words: part.synonyms,
      run: () => from.field(firstOf(part.key)),
    })),
    ...catalogue().quantities.map((quantity) => ({
      title: `${quantity.part}: ${quantity.title}`,
      kind: 'reading',
      words: [quantity.title, ...quantity.synonyms],
      run: () => from.field(quantity.key),
    })),
    ...catalogue().observations.map((observation) => ({
      title: `${catalogue().part_titles[observation.part]}: ${observation.title}`,
      kind: 'seen',
      words: [observation.title, ...observation.synonyms],
      run: () => from.field(observation.key),
    })),
    ...catalogue().details.map((detail) => ({
      title: detail.title[0]!.toUpperCase() + detail.title.slice(1),
      kind: 'intake',
      words: detail.synonyms,
      run: () => from.field(detail.key),
    })),
    ...catalogue().glossary.map((item) => ({
      title: `Meaning of: ${item.term}`,
      kind: 'glossary',
      words: [`what is ${item.term}`],
      run: () => from.explain(item.term),
    })),
    { title: 'Claims', kind: 'intake', words: ['published', 'rating', 'box says'], run: () => from.field('claims') },
    { title: 'Record the cut', kind: 'action', words: ['cut open', 'before cutting'], run: () => from.go('cut') },
    ...catalogue()
      .results.filter((result) => result.is_headline)
      .map(({ name, title }) => ({ title: `Working: ${title.toLowerCase()}`, kind: 'working', words: [title, 'print', 'formula', 'uncertainty budget', 'how computed'], run: () => from.working(name) })),
  ]
}
