/** The keys of the query cache: one function a resource, its steps those of the address, then what is asked of it. */
export const queryKeys = {
  preferences: () => ['preferences'] as const,
  service: () => ['service'] as const,
  backups: () => ['backups'] as const,
  notices: () => ['notices'] as const,
  studies: () => ['studies'] as const,
  templates: () => ['templates'] as const,
  study: (id: unknown) => ['studies', id] as const,
  studyResults: (studyId: unknown) => ['studies', studyId, 'results'] as const,
  sameParts: (studyId: unknown, others: unknown) => ['studies', studyId, 'same-part', { others }] as const,
  lots: (studyId: unknown) => ['studies', studyId, 'lots'] as const,
  filterSheet: (studyId: unknown, asked: unknown) => ['studies', studyId, 'comparison-sheet', asked] as const,
  arithmetic: (studyId: unknown) => ['studies', studyId, 'arithmetic'] as const,
  report: (studyId: unknown) => ['studies', studyId, 'report'] as const,
  reportPages: (studyId: unknown) => ['studies', studyId, 'report', 'preview'] as const,
  /** `asked` is the issued report, and how many differences are known of. */
  differences: (studyId: unknown, asked: unknown) => ['studies', studyId, 'report', 'differences', asked] as const,
  others: (studyId: unknown, words: unknown) => ['studies', studyId, 'others', { words }] as const,
  uses: (studyId: unknown) => ['studies', studyId, 'uses'] as const,
  /** `asked` is what is compared, and a what-if weight. */
  answer: (studyId: unknown, useId: unknown, asked: unknown) => ['studies', studyId, 'uses', useId, 'answer', asked] as const,
  adapter: (studyId: unknown, family: unknown) => ['studies', studyId, 'adapter', family] as const,
  judged: (studyId: unknown, useId: unknown, asked: unknown) => ['studies', studyId, 'uses', useId, 'judged', asked] as const,
  behaviour: (studyId: unknown) => ['studies', studyId, 'behaviour'] as const,
  scenarios: (studyId: unknown) => ['studies', studyId, 'scenarios'] as const,
  comparison: (studyId: unknown, asked: unknown) => ['studies', studyId, 'comparison', asked] as const,
  warmUp: (studyId: unknown, scenario: unknown) => ['studies', studyId, 'warm-up', scenario] as const,
  sheet: (sampleId: unknown) => ['samples', sampleId] as const,
  dateCode: (sampleId: unknown) => ['samples', sampleId, 'date-code'] as const,
  kept: (sampleId: unknown) => ['samples', sampleId, 'kept'] as const,
  working: (sampleId: unknown, result: unknown) => ['samples', sampleId, 'working', result] as const,
  figures: (sampleId: unknown) => ['samples', sampleId, 'figures'] as const,
  efficiency: (sampleId: unknown) => ['samples', sampleId, 'efficiency'] as const,
  percentiles: (sampleId: unknown) => ['samples', sampleId, 'percentiles'] as const,
  counts: (sampleId: unknown) => ['samples', sampleId, 'counts'] as const,
  engine: (sampleId: unknown) => ['samples', sampleId, 'engine'] as const,
  /** `asked` is condition, size and scenario. */
  map: (sampleId: unknown, asked: unknown) => ['samples', sampleId, 'map', asked] as const,
  filterAlone: (sampleId: unknown, scenario: unknown) => ['samples', sampleId, 'filter-alone', scenario] as const,
  sensitivity: (sampleId: unknown, asked: unknown) => ['samples', sampleId, 'sensitivity', asked] as const,
} as const

/** The address of what is kept under a key; what is asked of it is no part of that. */
export function addressOf(key: readonly unknown[]): string {
  const end = key.findIndex((step) => typeof step !== 'string' && typeof step !== 'number')
  return `/api/${(end < 0 ? key : key.slice(0, end)).join('/')}`
}
