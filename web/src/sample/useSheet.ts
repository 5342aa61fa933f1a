/** The bench sheet of one sample, and everything that changes it. */
import { useQuery, useQueryClient, type QueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { tellOtherWindows } from '@/api/stale'
import { withChanges, type Sheet } from './sheetChanges'

export type { Sheet }

const fetchSheet = (id: number) => unwrap(client.GET('/api/samples/{sample_id}', { params: { path: { sample_id: id } } }))

/** Fetch a sheet that is likely to be looked at next; what goes wrong is said when it is. */
export function prefetchSheet(queries: QueryClient, id: number): Promise<void> {
  return queries.prefetchQuery({ queryKey: queryKeys.sheet(id), queryFn: () => fetchSheet(id), staleTime: Infinity })
}

export function useSheet(sampleId: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: queryKeys.sheet(sampleId),
    queryFn: () => fetchSheet(toValue(sampleId)),
    // never changed in place: what did not change stays the same object, and its fields are not drawn again
    shallow: true,
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

/** Revisions that this window's own changes have made, by sample and thing: they were seen, however fast the hand was. */
const own = new Map<string, number>()

/** Headers of every change: what this window has, what it shows, and which revision it has seen. */
interface Asked {
  query: { since: number | undefined; figures: boolean }
  header: { 'If-Match': string }
}
type Answer<T> = Parameters<typeof unwrap<T>>[0]
/** Of which thing another revision is refused, and the one that was seen, if that is not the one on the sheet. */
interface Seen {
  thing: string
  revision?: number
}

/** Everything that changes a sample; each answers with what is no longer as this window has it. */
export function useBenchChanges(sampleId: MaybeRefOrGetter<number>) {
  const queries = useQueryClient()
  const sheetOf = (id: number) => queries.getQueryData<Sheet>(queryKeys.sheet(id))

  function take(base: Sheet | undefined, changed: Schemas['ChangedOut']) {
    const { sample_id: id, study_id: studyId } = changed
    if (changed.study) queries.setQueryData(queryKeys.study(studyId), changed.study)
    const sheet = changed.sheet ?? (base && changed.changes ? withChanges(base, changed.changes) : undefined)
    if (!sheet) return
    // what is still being fetched is older
    void queries.cancelQueries({ queryKey: queryKeys.sheet(id), exact: true })
    if ((sheetOf(id)?.revision ?? 0) <= sheet.revision) queries.setQueryData(queryKeys.sheet(id), sheet)
    if (changed.figures) {
      void queries.cancelQueries({ queryKey: queryKeys.figures(id) })
      queries.setQueryData(queryKeys.figures(id), changed.figures)
    }
    tellOtherWindows([`/api/samples/${id}`, `/api/samples/${id}/figures`, ...(changed.study ? [`/api/studies/${studyId}`] : [])])
  }

  /** Change in turn and take the answer; where another window has been there first, look before saying so. */
  function change<T extends Schemas['ChangedOut']>(work: (sample: { sample_id: number }, asked: Asked) => Answer<T>, seen?: Seen): Promise<T> {
    const sample = { sample_id: toValue(sampleId) }
    const name = `${sample.sample_id}/${seen?.thing}`
    const revision = seen ? (seen.revision ?? sheetOf(sample.sample_id)?.revisions[seen.thing] ?? 0) : 0
    return inTurn(async () => {
      const base = sheetOf(sample.sample_id)
      const query = { since: base?.revision, figures: isShown(queryKeys.figures(sample.sample_id)) }
      const pending = work(sample, { query, header: { 'If-Match': `"${Math.max(revision, own.get(name) ?? 0)}"` } })
      try {
        const changed = await unwrap(pending)
        const tag = (await pending).response.headers.get('ETag')
        if (seen && tag) own.set(name, Number(tag.replaceAll('"', '')))
        take(base, changed)
        return changed
      } catch (error) {
        if (error instanceof ProblemError && [404, 409, 412].includes(error.status))
          await queries.invalidateQueries({ queryKey: queryKeys.sheet(sample.sample_id) })
        throw error
      }
    })
  }

  function isShown(queryKey: readonly unknown[]): boolean {
    return queries.getQueryCache().find({ queryKey, exact: true })?.isActive() ?? false
  }

  /** Say why something is not done, and look again whether that still holds. */
  function refuse(sampleId: number, detail: string): never {
    void queries.invalidateQueries({ queryKey: queryKeys.sheet(sampleId) })
    throw new ProblemError({ detail, where: '', missing: [] }, 409)
  }

  /** Fetch the sheet anew, whatever is on its way. */
  async function lookAgain(id: number): Promise<Sheet> {
    const sheet = await fetchSheet(id)
    const queryKey = queryKeys.sheet(id)
    void queries.cancelQueries({ queryKey, exact: true }) // what is still on its way is older
    queries.setQueryData(queryKey, sheet)
    return sheet
  }

  /** A change of another window is moved only when it is asked for once more. */
  function move(way: 'undo' | 'redo') {
    return change<Schemas['UndoneOut']>(async (path, { query }) => {
      // a sheet fetched beforehand may be from before the last change: that there is nothing to move is looked up again
      const known = sheetOf(path.sample_id)?.[way] ? sheetOf(path.sample_id) : await lookAgain(path.sample_id)
      const last = known?.[way]
      if (!last) refuse(path.sample_id, `there is nothing to ${way}`)
      if (!last.is_own && last.change_id !== warned) {
        warned = last.change_id
        refuse(path.sample_id, `“${last.words}” was done in another window: ${way} once more to ${way} it all the same`)
      }
      const asked = {
        params: { path, query },
        body: { change_id: last.change_id, of_another_window: last.change_id === warned },
      }
      warned = last.is_own ? null : last.change_id
      return way === 'undo'
        ? client.POST('/api/samples/{sample_id}/undo', asked)
        : client.POST('/api/samples/{sample_id}/redo', asked)
    })
  }

  type OfReading = '/api/readings/{reading_id}/use-again' | '/api/readings/{reading_id}/confirm'
  const ofReading = (id: number, path: OfReading) =>
    change((_, asked) => client.POST(path, { params: { path: { reading_id: id }, ...asked }, body: {} }), { thing: `readings/${id}` })

  return {
    addReading: (body: Schemas['ReadingIn']) =>
      change((path, asked) => client.POST('/api/samples/{sample_id}/readings', { params: { path, ...asked }, body }), { thing: `states/${body.key}` }),
    setOil: (body: Schemas['OilIn'], revision: number) =>
      change((path, asked) => client.PUT('/api/samples/{sample_id}/oil', { params: { path, ...asked }, body }), { thing: 'oil', revision }),
    takeEngine: (body: Schemas['EngineIn'], revision: number) =>
      change((path, asked) => client.PUT('/api/samples/{sample_id}/engine', { params: { path, ...asked }, body }), { thing: 'engine', revision }),
    setAside: (id: number, reason: string) =>
      change((_, asked) => client.POST('/api/readings/{reading_id}/set-aside', { params: { path: { reading_id: id }, ...asked }, body: { reason } }), { thing: `readings/${id}` }),
    useAgain: (id: number) => ofReading(id, '/api/readings/{reading_id}/use-again'),
    correct: (id: number, body: Schemas['CorrectionIn']) =>
      change((_, asked) => client.POST('/api/readings/{reading_id}/correct', { params: { path: { reading_id: id }, ...asked }, body }), { thing: `readings/${id}` }),
    confirm: (id: number) => ofReading(id, '/api/readings/{reading_id}/confirm'),
    setState: (key: string, state: Schemas['StateIn']['state']) =>
      change((path, asked) => client.PUT('/api/samples/{sample_id}/states/{key}', { params: { path: { ...path, key }, ...asked }, body: { state } }), { thing: `states/${key}` }),
    /** `revision` is the one that was seen when the typing began. */
    setDetail: (key: string, body: Schemas['DetailIn'], revision: number) =>
      change((path, asked) => client.PUT('/api/samples/{sample_id}/details/{key}', { params: { path: { ...path, key }, ...asked }, body }), { thing: `details/${key}`, revision }),
    setObservation: (key: string, text: string | null) =>
      change((path, asked) => client.PUT('/api/samples/{sample_id}/observations/{key}', { params: { path: { ...path, key }, ...asked }, body: { text } }), { thing: `observations/${key}` }),
    addHoles: (body: Schemas['HolesIn']) =>
      change((path, asked) => client.POST('/api/samples/{sample_id}/holes', { params: { path, ...asked }, body })),
    changeHoles: (id: number, body: Schemas['HoleGroupIn']) =>
      change((_, asked) => client.PUT('/api/holes/{hole_group_id}', { params: { path: { hole_group_id: id }, ...asked }, body }), { thing: `holes/${id}` }),
    removeHoles: (id: number) =>
      change((_, asked) => client.DELETE('/api/holes/{hole_group_id}', { params: { path: { hole_group_id: id }, ...asked }, body: {} }), { thing: `holes/${id}` }),
    addClaim: (body: Schemas['ClaimIn']) =>
      change((path, asked) => client.POST('/api/samples/{sample_id}/claims', { params: { path, ...asked }, body })),
    setCounts: (body: Schemas['CountTableIn'], revision: number) =>
      change((path, asked) => client.PUT('/api/samples/{sample_id}/counts', { params: { path, ...asked }, body }), { thing: 'counts', revision }),
    removeCounts: (revision: number) =>
      change((path, asked) => client.DELETE('/api/samples/{sample_id}/counts', { params: { path, ...asked }, body: {} }), { thing: 'counts', revision }),
    addOffer: (body: Schemas['OfferIn']) =>
      change((path, asked) => client.POST('/api/samples/{sample_id}/offers', { params: { path, ...asked }, body })),
    removeOffer: (id: number) =>
      change((_, asked) => client.DELETE('/api/offers/{offer_id}', { params: { path: { offer_id: id }, ...asked }, body: {} }), { thing: `offers/${id}` }),
    markStale: (id: number, reason: string) =>
      change((_, asked) => client.POST('/api/claims/{claim_id}/stale', { params: { path: { claim_id: id }, ...asked }, body: { text: reason } }), { thing: `claims/${id}` }),
    removeClaim: (id: number) =>
      change((_, asked) => client.DELETE('/api/claims/{claim_id}', { params: { path: { claim_id: id }, ...asked }, body: {} }), { thing: `claims/${id}` }),
    cut: (body: Schemas['CutIn']) =>
      change((path, asked) => client.POST('/api/samples/{sample_id}/cut', { params: { path, ...asked }, body })),
    setStatus: (status: Schemas['StatusIn']['status']) =>
      change((path, asked) => client.PUT('/api/samples/{sample_id}/status', { params: { path, ...asked }, body: { status } })),
    confirmCopied: (things: readonly string[]) =>
      change((path, asked) => client.POST('/api/samples/{sample_id}/confirmations', { params: { path, ...asked }, body: { things: [...things] } })),
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
