import { QueryClient, QueryObserver } from '@tanstack/vue-query'
import { describe, expect, it, vi } from 'vitest'
import { addressOf, queryKeys } from './queryKeys'
import { covers, renew } from './stale'

describe('what the server names as stale', () => {
  it.each([
    ['/api/studies', '/api/studies', true],
    ['/api/studies', '/api/studies/1', false],
    ['/api/samples/2/*', '/api/samples/2/working/inlet_hole_area', true],
    ['/api/samples/2/*', '/api/samples/2', false],
    ['/api/samples/2/*', '/api/samples/21/figures', false],
    ['/api/samples/*/engine', '/api/samples/7/engine', true],
    ['/api/samples/*/engine', '/api/samples/7/engine/preview', false],
    ['/api/samples/*/engine', '/api/samples/7/figures', false],
  ])('%s covers %s: %s', (name, address, covered) => expect(covers(name, address)).toBe(covered))

  it('is found by the address of what is kept, whatever is asked of it', () => {
    expect(addressOf(queryKeys.map(3, { condition: 'steady' }))).toBe('/api/samples/3/map')
    expect(addressOf(queryKeys.filterAlone(3, null))).toBe('/api/samples/3/filter-alone')
    expect(addressOf(queryKeys.working(3, 'inlet_hole_area'))).toBe('/api/samples/3/working/inlet_hole_area')
    expect(addressOf(queryKeys.studies())).toBe('/api/studies')
  })

  it('is asked for again where its first answer is still on its way, which is from before', async () => {
    const queries = new QueryClient()
    const key = queryKeys.engine(3)
    const answers: ((told: string) => void)[] = []
    const queryFn = () => new Promise<string>((resolve) => void answers.push(resolve))
    const observer = new QueryObserver(queries, { queryKey: key, queryFn, retry: false })
    observer.subscribe(() => undefined)
    await vi.waitFor(() => expect(answers).toHaveLength(1))
    renew(queries, ['/api/samples/3/*'])
    await vi.waitFor(() => expect(answers).toHaveLength(2))
    answers[0]!('from before')
    answers[1]!('as it is now')
    await vi.waitFor(() => expect(observer.getCurrentResult().data).toBe('as it is now'))
  })

  it('is fetched again where it is shown, but for maps, which wait until the hands rest', async () => {
    const queries = new QueryClient()
    const fetched = vi.fn((key: readonly unknown[]) => addressOf(key))
    const keys = [queryKeys.engine(3), queryKeys.map(3, {}), queryKeys.sheet(3), queryKeys.kept(3)]
    for (const key of keys) await queries.fetchQuery({ queryKey: key, queryFn: () => fetched(key) })
    for (const key of [keys[0]!, keys[1]!, keys[2]!])
      new QueryObserver(queries, { queryKey: key, queryFn: () => fetched(key), staleTime: Infinity }).subscribe(() => undefined)
    fetched.mockClear()
    renew(queries, ['/api/samples/3/*'])
    await vi.waitFor(() => expect(fetched).toHaveBeenCalled())
    expect(fetched.mock.calls.map(([key]) => addressOf(key))).toEqual(['/api/samples/3/engine'])
    expect(keys.map((key) => queries.getQueryState(key)?.isInvalidated)).toEqual([false, true, false, true])
  })
})
