import { mount } from '@vue/test-utils'
import { expect, it, vi } from 'vitest'
import { client, type Schemas } from '@/api/client'
import CountTableEntry from './CountTableEntry.vue'

it('moves the focus on to taking a table though a later request overtook the slow answer to its paste', async () => {
  vi.useFakeTimers()
  const answers: (() => void)[] = []
  const table: Partial<Schemas['CountTableOut']> = { faults: [], headings: [], questions: [], notes: [], settings: [], rows: [], row_count: 0, sizes_um: [4, 6], intervals: 2, is_complete: true }
  vi.spyOn(client, 'POST').mockImplementation(
    (() => new Promise((resolve) => answers.push(() => resolve({ data: table, response: new Response() })))) as never,
  )
  const wrapper = mount(CountTableEntry, {
    attachTo: document.body,
    props: { sampleId: 1, fetchKept: () => Promise.resolve(''), hasCounts: false, take: () => Promise.resolve() },
  })
  await wrapper.get('textarea').trigger('paste', { clipboardData: { getData: () => 'size\tup\n4\t1\n' } })
  await vi.advanceTimersByTimeAsync(300)
  expect(answers.length).toBe(2)
  for (const answer of answers) answer()
  await vi.advanceTimersByTimeAsync(0)
  expect(document.activeElement).toBe(wrapper.get('[data-take]').element)
  vi.useRealTimers()
})
