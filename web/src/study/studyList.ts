/** Which studies are shown, and in which order. */
import type { Schemas } from '@/api/client'
import { plain } from '@/shared/search'

type Row = Pick<Schemas['StudyRowOut'], 'name' | 'question' | 'created_at' | 'changed_at' | 'sample_count'> & {
  samples: readonly Pick<Schemas['SampleNameOut'], 'label' | 'maker' | 'part_number'>[]
}

export const SORTS = { changed: 'last change', name: 'name', created: 'newest', samples: 'most samples' } as const
export type Sort = keyof typeof SORTS

const ORDERS: Record<Sort, (one: Row, other: Row) => number> = {
  changed: (item, other) => other.changed_at.localeCompare(item.changed_at),
  name: (item, other) => item.name.localeCompare(other.name, 'en', { numeric: true }),
  created: (item, other) => other.created_at.localeCompare(item.created_at),
  samples: (item, other) => other.sample_count - item.sample_count,
}

/** Return the studies in which every word asked for begins a word of study, question or sample, sorted. */
export function shownStudies<T extends Row>(studies: readonly T[], asked: string, sort: Sort): T[] {
  const words = plain(asked).split(' ').filter(Boolean)
  const matches = studies.filter((study) => {
    const texts = [study.name, study.question ?? '', ...study.samples.flatMap((sample) => [sample.label, sample.maker ?? '', sample.part_number ?? ''])]
    const all = ` ${plain(texts.join(' '))}`
    return words.every((word) => all.includes(` ${word}`))
  })
  return [...matches].sort(ORDERS[sort])
}
