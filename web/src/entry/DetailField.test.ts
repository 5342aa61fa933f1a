import { mount, flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ProblemError, type Schemas } from '@/api/client'
import DetailField from './DetailField.vue'
import { enterTyped, forgetTyped, refusedOf } from '@/shared/useTyped'

beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
  document.body.innerHTML = ''
  forgetTyped()
})

describe('a detail field', () => {
  const detail: Schemas['DetailOut'] = {
    key: 'sample.price', title: 'price', kind: 'price', help: '', choices: [], whole_only: false, stage: 'intake', synonyms: [], views: [], usual_inch: '', usual: '',
  }
  function mountDetail(set: (key: string, detail: Schemas['DetailIn'], revision: number) => Promise<unknown>) {
    return mount(DetailField, { props: { sampleId: 3, detail, value: '9.50 EUR', revision: 4, family: 'metric', set } })
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
  it('enters what is typed as another view is opened; what is refused stands in its field when the view comes back, and in no other sample', async () => {
    const set = vi.fn().mockRejectedValue(new ProblemError({ detail: 'no price', where: '', missing: [] }))
    const left = mountDetail(set)
    await left.get('input').setValue('cheap')
    enterTyped()
    left.unmount()
    await flushPromises()
    expect(set).toHaveBeenCalledTimes(1)
    expect([refusedOf(3), refusedOf(4)]).toEqual([['sample.price'], []])
    const back = mountDetail(set)
    expect((back.get('input').element as HTMLInputElement).value).toBe('cheap')
    expect(back.get('[role="alert"]').text()).toBe('no price')
    set.mockResolvedValue({})
    await back.get('input').setValue('11 EUR')
    expect(back.find('[role="alert"]').exists()).toBe(false)
    await back.get('input').trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(refusedOf(3)).toEqual([])
  })
  it('stores what is typed while the text before it is still being stored', async () => {
    let stored: (value: unknown) => void = () => undefined
    const set = vi.fn().mockImplementationOnce(() => new Promise((resolve) => (stored = resolve))).mockResolvedValue({})
    const wrapper = mountDetail(set)
    await wrapper.get('input').setValue('11 EUR')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    await wrapper.get('input').setValue('12 EUR')
    await wrapper.get('input').trigger('blur')
    stored({})
    await flushPromises()
    expect(set.mock.calls.map(([, given]) => (given as Schemas['DetailIn']).text)).toEqual(['11 EUR', '12 EUR'])
  })
  it('shows what nobody typed in the family of the person, and what was typed as typed', async () => {
    const number = { metric: '340 kPa', inch: '49.31 psi', is_typed: false, provenance: 'assumed' as const, origin: null }
    const wrapper = mount(DetailField, { props: { sampleId: 3, detail, value: '340 kPa', revision: 0, number, family: 'metric', set: vi.fn() } })
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
