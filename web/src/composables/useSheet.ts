/** The bench sheet of one sample, and everything that changes it. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, onMounted, toValue, type MaybeRefOrGetter } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { prefetchMaps } from './useOperatingMap'

export type Sheet = Schemas['SheetOut']

/** Maps are worked out again once the hands rest, so that they never hold a reading up. */
const MAP_PAUSE_MS = 900
/** Changes that other views of the study show: the size of a can, names. */
const SHOWN_ELSEWHERE = /^(can|study|engine|sample)\./

/** Tells the other windows of this browser that a sample changed. */
const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('tabrel.bench')

export function useSheet(sampleId: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: ['sheet', sampleId],
    queryFn: () =>
      unwrap(client.GET('/api/samples/{sample_id}', { params: { path: { sample_id: toValue(sampleId) } } })),
    // never changed in place: what did not change stays the same object, and its fields are not drawn again
    shallow: true,
  })
}

/** Look again as soon as another window of this browser has changed a sample. */
export function useOtherWindows() {
  const queries = useQueryClient()
  function heard(event: MessageEvent<{ sampleId: number; studyId: number }>) {
    void queries.invalidateQueries({ queryKey: ['sheet'] })
    void queries.invalidateQueries({ queryKey: ['figures'] })
    void queries.invalidateQueries({ queryKey: ['study', event.data.studyId] })
    void queries.invalidateQueries({ queryKey: ['map', event.data.sampleId] })
  }
  onMounted(() => channel?.addEventListener('message', heard))
  onBeforeUnmount(() => channel?.removeEventListener('message', heard))
}

let mapTimer: ReturnType<typeof setTimeout> | undefined

/** Everything that changes a sample; each answers with the sheet as it then stands. */
export function useBenchChanges(sampleId: MaybeRefOrGetter<number>) {
  const queries = useQueryClient()
  const here = () => ({ sample_id: toValue(sampleId) })

  function take(sheet: Sheet, place = ''): Sheet {
    queries.setQueryData(['sheet', sheet.id], sheet)
    if (place === '' || SHOWN_ELSEWHERE.test(place)) void queries.invalidateQueries({ queryKey: ['study', sheet.study_id] })
    void queries.invalidateQueries({ queryKey: ['studies'], refetchType: 'none' })
    if (/^(study|engine)\./.test(place) || place === '') {
      // facts of study and engine stand on every sample's sheet
      void queries.invalidateQueries({
        predicate: (query) => query.queryKey[0] === 'sheet' && query.queryKey[1] !== sheet.id,
        refetchType: 'none',
      })
      void queries.invalidateQueries({ queryKey: ['map'], refetchType: 'none' })
    }
    void queries.invalidateQueries({ queryKey: ['working'] })
    void queries.invalidateQueries({ queryKey: ['figures'] })
    channel?.postMessage({ sampleId: sheet.id, studyId: sheet.study_id })
    clearTimeout(mapTimer)
    mapTimer = setTimeout(() => void prefetchMaps(queries, sheet.id), MAP_PAUSE_MS)
    return sheet
  }

  /** Look again after a refusal, since another window may have been there first. */
  async function looked<T>(work: Promise<T>): Promise<T> {
    try {
      return await work
    } catch (error) {
      void queries.invalidateQueries({ queryKey: ['sheet', toValue(sampleId)] })
      throw error
    }
  }

  const of = (readingId: number) => ({ params: { path: { reading_id: readingId } } })
  const onReading: typeof unwrap = (answer) => looked(unwrap(answer))

  async function move(way: 'undo' | 'redo') {
    const path = { params: { path: here() } }
    const moved = await unwrap(
      way === 'undo'
        ? client.POST('/api/samples/{sample_id}/undo', path)
        : client.POST('/api/samples/{sample_id}/redo', path),
    )
    if (moved.sheet) take(moved.sheet)
    else await queries.invalidateQueries()
    return moved
  }

  return {
    addReading: async (reading: Schemas['ReadingIn']) =>
      take(
        await unwrap(client.POST('/api/samples/{sample_id}/readings', { params: { path: here() }, body: reading })),
        reading.key,
      ),
    strikeOut: async (id: number, reason: string, place = '') =>
      take(await onReading(client.POST('/api/readings/{reading_id}/strike-out', { ...of(id), body: { reason } })), place),
    restore: async (id: number, place = '') =>
      take(await onReading(client.POST('/api/readings/{reading_id}/restore', of(id))), place),
    correct: async (id: number, text: string, place = '') =>
      take(await onReading(client.POST('/api/readings/{reading_id}/correct', { ...of(id), body: { text } })), place),
    insist: async (id: number, place = '') =>
      take(await onReading(client.POST('/api/readings/{reading_id}/insist', of(id))), place),
    setState: async (state: Schemas['StateIn']) =>
      take(
        await unwrap(client.POST('/api/samples/{sample_id}/states', { params: { path: here() }, body: state })),
        state.key,
      ),
    setFact: async (fact: Schemas['FactIn']) =>
      take(
        await looked(
          unwrap(client.POST('/api/samples/{sample_id}/facts', { params: { path: here() }, body: fact })),
        ),
        fact.key,
      ),
    setObservation: async (observation: Schemas['ObservationIn']) =>
      take(
        await looked(
          unwrap(client.POST('/api/samples/{sample_id}/observations', { params: { path: here() }, body: observation })),
        ),
        observation.key,
      ),
    addHoles: async (holes: Schemas['HolesIn']) =>
      take(
        await unwrap(client.POST('/api/samples/{sample_id}/holes', { params: { path: here() }, body: holes })),
        'holes',
      ),
    changeHoles: async (group: Schemas['HoleGroupOut'], body: Schemas['HoleGroupIn']) =>
      take(
        await looked(
          unwrap(
            client.POST('/api/samples/{sample_id}/holes/{placement}/{position}', {
              params: { path: { ...here(), placement: group.placement, position: group.position } },
              body,
            }),
          ),
        ),
        'holes',
      ),
    removeHoles: async (group: Schemas['HoleGroupOut']) =>
      take(
        await looked(
          unwrap(
            client.DELETE('/api/samples/{sample_id}/holes/{placement}/{position}', {
              params: {
                path: { ...here(), placement: group.placement, position: group.position },
                query: { seen: group.words },
              },
            }),
          ),
        ),
        'holes',
      ),
    addClaim: async (claim: Schemas['ClaimIn']) =>
      take(
        await unwrap(client.POST('/api/samples/{sample_id}/claims', { params: { path: here() }, body: claim })),
        'claims',
      ),
    markStale: async (id: number, reason: string) =>
      take(
        await unwrap(
          client.POST('/api/claims/{claim_id}/stale', { params: { path: { claim_id: id } }, body: { text: reason } }),
        ),
        'claims',
      ),
    removeClaim: async (id: number) =>
      take(await unwrap(client.DELETE('/api/claims/{claim_id}', { params: { path: { claim_id: id } } })), 'claims'),
    cut: async (cut: Schemas['CutIn']) =>
      take(await unwrap(client.POST('/api/samples/{sample_id}/cut', { params: { path: here() }, body: cut })), 'cut'),
    undo: () => move('undo'),
    redo: () => move('redo'),
  }
}

export type BenchChanges = ReturnType<typeof useBenchChanges>

/** Titles of all fields of a sheet by key, such as "Media: strip length". */
export function useFieldTitles(sheet: MaybeRefOrGetter<Sheet | undefined>) {
  return computed(() => {
    const titles = new Map<string, string>()
    for (const part of toValue(sheet)?.parts ?? [])
      for (const field of part.fields) titles.set(field.key, `${part.title}: ${field.title}`)
    return titles
  })
}
