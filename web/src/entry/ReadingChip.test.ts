import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ProblemError, type Schemas } from '@/api/client'
import ReadingChip from './ReadingChip.vue'

const reading: Schemas['ReadingOut'] = {
  id: 7, text: '1.62 m', taken_at: '2026-11-01T08:00:00Z', set_aside_reason: null, copied_from: null, hole: null, nominal_metric: null, nominal_inch: null, metric: '1620 mm', inch: '63.780 in', outlier: false,
  instrument: null, provenance: 'measured', note: null, confirmed: false, used: true,
}
beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
  document.body.innerHTML = ''
})

const mountChip = (more: object = {}) =>
  mount(ReadingChip, { props: { reading, usualInstrument: 'tape', unit: 'mm', correct: vi.fn().mockResolvedValue({}), ...more }, attachTo: document.body })

describe('a reading chip', () => {
  it('is corrected by typing the right number on it; the reason is one of a few', async () => {
    const correct = vi.fn().mockRejectedValueOnce(new ProblemError({ detail: "'1..6' is not a number", where: '', missing: [] })).mockResolvedValue({})
    const wrapper = mountChip({ correct })
    await wrapper.get('button').trigger('keydown', { key: '1' })
    const field = wrapper.get<HTMLInputElement>('input')
    expect(field.element.value).toBe('1')
    await field.setValue('1..6')
    await field.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(wrapper.get('[role="alert"]').text()).toContain('not a number')
    expect(field.element.value).toBe('1..6') // nothing typed is lost
    await field.setValue('1660')
    await wrapper.get('select').setValue('instrument')
    await field.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(correct).toHaveBeenLastCalledWith('1660', 'instrument')
    expect(wrapper.find('input').exists()).toBe(false)
  })
  it('asks for the right one where nothing was typed, and goes on to setting aside', async () => {
    const wrapper = mountChip()
    await wrapper.get('button').trigger('click')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    expect(wrapper.get('[role="alert"]').text()).toContain('Type the right one')
    await wrapper.findAll('button').find((item) => item.text() === 'Set aside …')!.trigger('click')
    expect(wrapper.text()).toContain('because')
  })
  it('asks for a reason in place and does not take an empty one', async () => {
    const wrapper = mountChip()
    await wrapper.get('button').trigger('keydown', { key: 'Delete' })
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    expect(wrapper.emitted('setAside')).toBeUndefined()
    expect(wrapper.text()).toContain('why it does not count')
    await wrapper.get('input').setValue('pulled too hard')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    expect(wrapper.emitted('setAside')).toEqual([['pulled too hard']])
  })
  it('keeps a reading set aside in sight and uses it again', async () => {
    const aside = { ...reading, set_aside_reason: 'wet' }
    const wrapper = mountChip({ reading: aside })
    expect(wrapper.get('s').text()).toBe('1.62 m')
    expect(wrapper.text()).toContain('wet')
    await wrapper.get('button').trigger('click')
    expect(wrapper.emitted('useAgain')).toHaveLength(1)
  })

  it('takes no press that was meant for what lay there before it came', async () => {
    const wrapper = mountChip()
    const chip = wrapper.get('button').element
    const press = new MouseEvent('mousedown', { bubbles: true, cancelable: true, detail: 1 })
    chip.dispatchEvent(press)
    expect(press.defaultPrevented).toBe(true)
    chip.dispatchEvent(new MouseEvent('click', { bubbles: true, detail: 1 }))
    await wrapper.vm.$nextTick()
    expect(wrapper.find('.asking').exists()).toBe(false)
    chip.dispatchEvent(new MouseEvent('click', { bubbles: true, detail: 0 })) // of the keyboard
    await wrapper.vm.$nextTick()
    expect(wrapper.find('.asking').exists()).toBe(true)
  })
})
