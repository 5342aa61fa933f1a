import { mount, flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ProblemError, type Schemas } from '@/api/client'
import DetailField from './DetailField.vue'

beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
  document.body.innerHTML = ''
})

describe('a detail field', () => {
  const detail: Schemas['DetailOut'] = {
    key: 'sample.price', title: 'price', kind: 'price', help: '', choices: [], whole_only: false, stage: 'intake', synonyms: [], views: [], usual_inch: '', usual: '',
  }
  function mountDetail(set: (key: string, detail: Schemas['DetailIn'], revision: number) => Promise<unknown>) {
    return mount(DetailField, { props: { detail, value: '9.50 EUR', revision: 4, family: 'metric', set } })
  }
  it('keeps what changed on Enter, with the revision that was seen, and nothing else', async () => {
    const set = vi.fn().mockResolvedValue({})
    const wrapper = mountDetail(set)
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    expect(set).not.toHaveBeenCalled()
    await wrapper.get('input').setValue('11 EUR')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    expect(set).toHaveBeenCalledWith('sample.price', { text: '11 EUR', family: 'metric' }, 4)
    expect(wrapper.emitted('next')).toHaveLength(2)
  })
  it('keeps the text in the field and says why when it is refused', async () => {
    const set = vi.fn().mockRejectedValue(new ProblemError({ detail: 'no price', where: '', missing: [] }))
    const wrapper = mountDetail(set)
    await wrapper.get('input').setValue('cheap')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(wrapper.get('[role="alert"]').text()).toBe('no price')
    expect((wrapper.get('input').element as HTMLInputElement).value).toBe('cheap')
  })
  it('shows what nobody typed in the family of the person, and what was typed as typed', async () => {
    const number = { metric: '340 kPa', inch: '49.31 psi', is_typed: false, provenance: 'assumed', origin: null }
    const wrapper = mount(DetailField, { props: { detail, value: '340 kPa', revision: 0, number, family: 'metric', set: vi.fn() } })
    const shown = () => (wrapper.get('input').element as HTMLInputElement).value
    expect(shown()).toBe('340 kPa')
    expect(wrapper.text()).toContain('assumed')
    await wrapper.setProps({ family: 'inch' })
    expect(shown()).toBe('49.31 psi')
    await wrapper.setProps({ value: '50 psi', number: { ...number, metric: '344.738 kPa', is_typed: true, provenance: null, origin: 'library' } })
    expect(shown()).toBe('50 psi')
    expect(wrapper.text()).toContain('from the library')
  })
  it('shows what another window put there, unless something is being typed', async () => {
    const elsewhere = new ProblemError({ detail: 'another window has set the price', where: '', missing: [] }, 412)
    const set = vi.fn().mockRejectedValue(elsewhere)
    const wrapper = mountDetail(set)
    await wrapper.setProps({ value: '12.00 EUR', revision: 5 })
    expect((wrapper.get('input').element as HTMLInputElement).value).toBe('12.00 EUR')
    await wrapper.get('input').setValue('13')
    await wrapper.setProps({ value: '14.00 EUR', revision: 6 })
    expect((wrapper.get('input').element as HTMLInputElement).value).toBe('13')
    for (const seen of [5, 6]) { // it names what was there when the typing began, and once told, what is there
      await wrapper.get('input').trigger('keydown', { key: 'Enter' })
      await flushPromises()
      expect(set.mock.lastCall![2]).toBe(seen)
      expect(wrapper.get('[role="alert"]').text()).toContain('another window')
    }
  })
})
