/** The report of a study: its plan, its pages as they will print, issuing it. Each change names the plan as it was seen. */
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, toValue, type MaybeRefOrGetter } from 'vue'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { inTurn } from '@/sample/useSheet'

export type Plan = Schemas['ReportPlan']
export type Part = Schemas['ReportPart']
export type Report = Schemas['ReportOut']

export function useReport(studyId: MaybeRefOrGetter<number>) {
  const queries = useQueryClient()
  const key = () => queryKeys.report(toValue(studyId))
  const path = () => ({ study_id: toValue(studyId) })
  const report = useQuery({
    queryKey: queryKeys.report(studyId),
    queryFn: () => unwrap(client.GET('/api/studies/{study_id}/report', { params: { path: path() } })),
    retry: false,
  })
  const pages = useQuery({
    queryKey: queryKeys.reportPages(studyId),
    // pages that nobody waits for any more are not set to their end
    queryFn: ({ signal }) => unwrap(client.POST('/api/studies/{study_id}/report/preview', { params: { path: path() }, body: {}, signal })),
    placeholderData: keepPreviousData,
    retry: false,
  })

  /** Changes on their way: until they are through, what is shown is what they make of the plan. */
  const underWay = ref(0)
  let waiting: Partial<Plan> = {}
  /** The parts that the list on screen was made from: another order may be made of no others. */
  let basedOn = ''
  const partsNow = () => JSON.stringify(queries.getQueryData<Report>(key())?.plan.parts)

  /** Change the plan as it is by now; changes that come while one is on its way go out together, after it. */
  function change(changed: Partial<Plan>) {
    if (underWay.value === 0) basedOn = partsNow()
    waiting = { ...waiting, ...changed }
    underWay.value += 1
    return inTurn(sent).finally(() => (underWay.value -= 1))
  }

  async function sent() {
    const seen = queries.getQueryData<Report>(key())?.plan
    const next = waiting
    waiting = {}
    if (!seen || !Object.keys(next).length) return
    if (next.parts && partsNow() !== basedOn)
      throw new ProblemError({ detail: 'Another window has changed the parts of the report meanwhile: look, then do it again.', where: '', missing: [] })
    try {
      const body = { plan: { ...seen, ...next }, seen }
      queries.setQueryData(key(), await unwrap(client.PUT('/api/studies/{study_id}/report', { params: { path: path() }, body })))
      basedOn = partsNow()
    } catch (error) {
      if (error instanceof ProblemError && [404, 412].includes(error.status)) await queries.invalidateQueries({ queryKey: key() })
      throw error
    }
  }

  /** Issue the pages that are looked at. */
  function issue(previewKey: string) {
    const body = { preview_key: previewKey }
    return unwrap(client.POST('/api/studies/{study_id}/report/issue', { params: { path: path() }, body }))
  }

  return { report, pages, change, underWay, issue }
}

/** The parts of a plan in their order: those of its size where none is chosen. */
export function partsOf(plan: Plan, sizes: Report['sizes']): Part[] {
  if (plan.parts.length) return [...plan.parts]
  return (sizes.find((item) => item.key === (plan.size ?? 'short'))?.parts ?? []).map((part) => ({ part, text: null }))
}

/** The same list with one entry moved by so many places, as far as there are places. */
export function moved<T>(list: readonly T[], index: number, by: number): T[] {
  const to = Math.min(list.length - 1, Math.max(0, index + by))
  const rest = list.filter((_, i) => i !== index)
  return [...rest.slice(0, to), list[index]!, ...rest.slice(to)]
}

/** The chosen sections with one put in or taken out; all is told as none chosen. */
export function toggled(plan: Plan, key: string, offered: Report['sections']): Plan['sections'] {
  const all = offered.map((item) => item.key) as Plan['sections']
  const chosen = plan.sections.length ? plan.sections : all
  const next = all.filter((item) => (item === key ? !chosen.includes(item) : chosen.includes(item)))
  return next.length === all.length ? [] : next
}
