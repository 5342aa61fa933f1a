/** The bench sheet of one sample, and everything that changes it. */
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { createGlobalState, useBroadcastChannel } from '@vueuse/core'
import { computed, toValue, watch, type MaybeRefOrGetter } from 'vue'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import { outdateOtherSheets, queryKeys, renewComputed } from '@/api/queryKeys'

export type Sheet = Schemas['SheetOut']

/** Changes that other views of the study show: the size of a can, names. */
const SHOWN_ELSEWHERE = /^(can|study|engine|oil|sample)\./
/** Details of study, engine, oil and plan are on every sample's sheet. */
const ON_EVERY_SHEET = /^$|^(study|engine|oil|plan)\.|^scenarios$/

interface Change {
  sampleId: number
  studyId: number
}

/** Tells the other windows of this browser that a sample changed; one channel a window, or it would hear itself. */
const useChannel = createGlobalState(() => useBroadcastChannel<Change, Change>({ name: 'tabrel.bench' }))

export function useSheet(sampleId: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: queryKeys.sheet(sampleId),
    queryFn: () =>
      unwrap(client.GET('/api/samples/{sample_id}', { params: { path: { sample_id: toValue(sampleId) } } })),
    // never changed in place: what did not change stays the same object, and its fields are not drawn again
    shallow: true,
  })
}

/** Look again as soon as another window of this browser has changed a sample. */
export function useOtherWindows() {
  const queries = useQueryClient()
  const { data } = useChannel()
  watch(data, (change) => {
    if (!change) return
    const changed = [queryKeys.sheets(), queryKeys.allFigures(), queryKeys.study(change.studyId), queryKeys.maps()]
    for (const queryKey of changed) void queries.invalidateQueries({ queryKey })
    renewComputed(queries)
  })
}

/** The change of another window that undo or redo has just said it would move. */
let warned: number | null = null

let underway = 0
let turn: Promise<unknown> = Promise.resolve()

/**
 * Do one change after the other, in the order of the hands: answers that overtake each other would leave an
 * older sheet on the screen. With nothing underway the request starts at once.
 */
export function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const done = (underway === 0 ? work() : turn.then(work)).finally(() => (underway -= 1))
  underway += 1
  turn = done.catch(() => undefined)
  return done
}

/** Everything that changes a sample; each answers with the sheet as it then is. */
export function useBenchChanges(sampleId: MaybeRefOrGetter<number>) {
  const queries = useQueryClient()
  const { post } = useChannel()

  function take(sheet: Sheet, place = ''): Sheet {
    void queries.cancelQueries({ queryKey: queryKeys.sheet(sheet.id) }) // what is still being fetched is older
    queries.setQueryData(queryKeys.sheet(sheet.id), sheet)
    if (place === '' || SHOWN_ELSEWHERE.test(place)) void queries.invalidateQueries({ queryKey: queryKeys.study(sheet.study_id) })
    void queries.invalidateQueries({ queryKey: queryKeys.studies(), refetchType: 'none' })
    renewComputed(queries)
    if (ON_EVERY_SHEET.test(place)) {
      outdateOtherSheets(queries, sheet.id)
      void queries.invalidateQueries({ queryKey: queryKeys.maps(), refetchType: 'none' })
    }
    void queries.invalidateQueries({ queryKey: queryKeys.workings() })
    void queries.invalidateQueries({ queryKey: queryKeys.allFigures() })
    post({ sampleId: sheet.id, studyId: sheet.study_id })
    return sheet
  }

  /** Change in turn and take the answer; where another window has been there first, look before saying so. */
  function change(place: string, work: (sample: { sample_id: number }) => Parameters<typeof unwrap<Sheet>>[0]) {
    const sample = { sample_id: toValue(sampleId) }
    return inTurn(async () => take(await told(sample, () => unwrap(work(sample))), place))
  }

  async function told<T>(sample: { sample_id: number }, work: () => Promise<T>): Promise<T> {
    try {
      return await work()
    } catch (error) {
      if (error instanceof ProblemError && [404, 409].includes(error.status))
        await queries.invalidateQueries({ queryKey: queryKeys.sheet(sample.sample_id) })
      throw error
    }
  }

  /** A change of another window is moved only when it is asked for once more. */
  function move(way: 'undo' | 'redo') {
    const sample = { sample_id: toValue(sampleId) }
    return inTurn(async () => {
      const last = queries.getQueryData<Sheet>(queryKeys.sheet(sample.sample_id))?.[way]
      const asked = {
        params: { path: sample },
        body: { change_id: last?.change_id ?? null, of_another_window: last?.change_id === warned },
      }
      warned = last && !last.is_own ? last.change_id : null
      const moved = await told(sample, () =>
        unwrap(
          way === 'undo'
            ? client.POST('/api/samples/{sample_id}/undo', asked)
            : client.POST('/api/samples/{sample_id}/redo', asked),
        ),
      )
      if (moved.sheet) take(moved.sheet)
      else await queries.invalidateQueries()
      return moved
    })
  }

  const of = (readingId: number) => ({ params: { path: { reading_id: readingId } } })
  const claimed = (claimId: number) => ({ params: { path: { claim_id: claimId } } })

  return {
    addReading: (body: Schemas['ReadingIn']) =>
      change(body.key, (path) => client.POST('/api/samples/{sample_id}/readings', { params: { path }, body })),
    setOil: (body: Schemas['OilIn']) =>
      change('oil.viscosity', (path) => client.POST('/api/samples/{sample_id}/oil', { params: { path }, body })),
    takeEngine: (body: Schemas['EngineIn']) =>
      change('engine.name', (path) => client.POST('/api/samples/{sample_id}/engine', { params: { path }, body })),
    setAside: (id: number, reason: string, place = '') =>
      change(place, () => client.POST('/api/readings/{reading_id}/set-aside', { ...of(id), body: { reason } })),
    useAgain: (id: number, place = '') => change(place, () => client.POST('/api/readings/{reading_id}/use-again', { ...of(id), body: {} })),
    correct: (id: number, text: string, place = '') =>
      change(place, () => client.POST('/api/readings/{reading_id}/correct', { ...of(id), body: { text } })),
    confirm: (id: number, place = '') => change(place, () => client.POST('/api/readings/{reading_id}/confirm', { ...of(id), body: {} })),
    setState: (body: Schemas['StateIn']) =>
      change(body.key, (path) => client.POST('/api/samples/{sample_id}/states', { params: { path }, body })),
    setDetail: (body: Schemas['DetailIn']) =>
      change(body.key, (path) => client.POST('/api/samples/{sample_id}/details', { params: { path }, body })),
    setObservation: (body: Schemas['ObservationIn']) =>
      change(body.key, (path) => client.POST('/api/samples/{sample_id}/observations', { params: { path }, body })),
    addHoles: (body: Schemas['HolesIn']) =>
      change('holes', (path) => client.POST('/api/samples/{sample_id}/holes', { params: { path }, body })),
    changeHoles: ({ placement, position }: Schemas['HoleGroupOut'], body: Schemas['HoleGroupIn']) =>
      change('holes', (sample) =>
        client.POST('/api/samples/{sample_id}/holes/{placement}/{position}', {
          params: { path: { ...sample, placement, position } },
          body,
        }),
      ),
    removeHoles: ({ placement, position, words }: Schemas['HoleGroupOut']) =>
      change('holes', (sample) =>
        client.DELETE('/api/samples/{sample_id}/holes/{placement}/{position}', {
          params: { path: { ...sample, placement, position } },
          body: { seen: words },
        }),
      ),
    addClaim: (body: Schemas['ClaimIn']) =>
      change('claims', (path) => client.POST('/api/samples/{sample_id}/claims', { params: { path }, body })),
    markStale: (id: number, reason: string) =>
      change('claims', () => client.POST('/api/claims/{claim_id}/stale', { ...claimed(id), body: { text: reason } })),
    removeClaim: (id: number) => change('claims', () => client.DELETE('/api/claims/{claim_id}', { ...claimed(id), body: {} })),
    cut: (body: Schemas['CutIn']) =>
      change('cut', (path) => client.POST('/api/samples/{sample_id}/cut', { params: { path }, body })),
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
