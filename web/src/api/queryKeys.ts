/** The keys of the query cache: one function a resource, so that what is fetched and what is renewed always match. */
import type { QueryClient, QueryFilters } from '@tanstack/vue-query'

export const queryKeys = {
  studies: () => ['studies'] as const,
  study: (id: unknown) => ['study', id] as const,
  sheet: (sampleId: unknown) => ['sheet', sampleId] as const,
  sheets: () => ['sheet'] as const,
  kept: (sampleId: unknown) => ['kept', sampleId] as const,
  working: (sampleId: unknown, result: unknown) => ['working', sampleId, result] as const,
  workings: () => ['working'] as const,
  figures: (sampleId: unknown) => ['figures', sampleId] as const,
  allFigures: () => ['figures'] as const,
  engine: (sampleId: unknown) => ['engine', sampleId] as const,
  engines: () => ['engine'] as const,
  /** `asked` is condition, size and scenario. */
  map: (sampleId: unknown, asked: unknown) => ['map', sampleId, asked] as const,
  mapsOf: (sampleId: unknown) => ['map', sampleId] as const,
  maps: () => ['map'] as const,
  filterAlone: (sampleId: unknown, scenario: unknown) => ['map', sampleId, 'alone', scenario] as const,
  sensitivity: (sampleId: unknown, asked: unknown) => ['sensitivity', sampleId, asked] as const,
  scenarios: (studyId: unknown) => ['scenarios', studyId] as const,
  comparison: (studyId: unknown, asked: unknown) => ['comparison', studyId, asked] as const,
  service: () => ['service'] as const,
  warmUp: (studyId: unknown, scenario: unknown) => ['warm-up', studyId, scenario] as const,
} as const

/** Resources computed from readings, engine and plan together, other than maps. */
const COMPUTED: ReadonlySet<string> = new Set(['engine', 'sensitivity', 'comparison', 'warm-up', 'scenarios'])
const isComputed: QueryFilters = { predicate: (query) => COMPUTED.has(String(query.queryKey[0])) }

/** Renew what is computed from readings, engine and plan together. */
export function renewComputed(queries: QueryClient): void {
  void queries.invalidateQueries(isComputed)
}

/** Mark the sheets of all other samples as old, to be fetched when they are looked at. */
export function outdateOtherSheets(queries: QueryClient, sampleId: number): void {
  void queries.invalidateQueries({
    predicate: ({ queryKey }) => queryKey[0] === queryKeys.sheets()[0] && queryKey[1] !== sampleId,
    refetchType: 'none',
  })
}
