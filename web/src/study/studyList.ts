/** Which studies are shown, and in which order. */
import type { Schemas } from '@/api/client'
import { plain } from '@/shared/search'

type Row = Pick<Schemas['StudyRowOut'], 'name' | 'question' | 'created_at' | 'changed_at' | 'sample_count'> & {
  samples: readonly Pick<Schemas['SampleNameOut'], 'label' | 'maker' | 'part_number'>[]
}

export const SORTS = { changed: 'last change', name: 'name', created: 'newest', samples: 'most samples' } as const
export type Sort = keyof typeof SORTS

const ORDERS: Record<Sort, (one: Row, other: Row) => number> = {
  changed: (one, other) => other.changed_at.localeCompare(one.changed_at),
  name: (one, other) => one.name.localeCompare(other.name, 'en', { numeric: true }),
  created: (one, other) => other.created_at.localeCompare(one.created_at),
  samples: (one, other) => other.sample_count - one.sample_count,
}

/** Return the studies in which every word asked for begins a word of study, question or sample, sorted. */
export function shownStudies<T extends Row>(studies: readonly T[], asked: string, sort: Sort): T[] {
  const words = plain(asked).split(' ').filter(Boolean)
  const found = studies.filter((study) => {
    const texts = [study.name, study.question ?? '', ...study.samples.flatMap((one) => [one.label, one.maker ?? '', one.part_number ?? ''])]
    const all = ` ${plain(texts.join(' '))}`
    return words.every((word) => all.includes(` ${word}`))
  })
  return [...found].sort(ORDERS[sort])
}
