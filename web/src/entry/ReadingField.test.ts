import { enableAutoUnmount, flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { client, ProblemError, type Schemas } from '@/api/client'
import ReadingField from './ReadingField.vue'
import type { BenchChanges } from '@/sample/useSheet'
import { enterTyped, forgetTyped, refusedOf } from '@/shared/useTyped'

const reading: Schemas['ReadingOut'] = {
  id: 7, text: '1.62 m', taken_at: '2026-11-01T08:00:00Z', set_aside_reason: null, copied_from: null, hole: null, nominal_metric: null, nominal_inch: null, metric: '1620 mm', inch: '63.780 in', outlier: false,
  instrument: null, provenance: 'measured', note: null, confirmed: false, used: true,
}
const field: Schemas['FieldOut'] = {
  key: 'media.strip_length', title: 'strip length', metric_unit: 'mm', inch_unit: 'in', instrument: 'tape',
  instruments: ['caliper', 'tape'], drawing: 'strip', counted: false, whole_only: false, state: null, bound: null,
  readings: [reading],
  estimate: {
    metric_value: 1620, metric_uncertainty: 9.5, metric_expanded: 19, inch_value: 63.7795, inch_uncertainty: 0.373,
    inch_expanded: 0.75, provenance: 'measured', used: 1,
  },
  warnings: [],
}
const echoed: Schemas['EchoOut'] = {
  text: '9 mm', metric: '9 mm', inch: '0.3543 in', problem: null, question: null, correction: null, estimate: null,
}

/** A field with the changes it may make replaced by stand-ins. */
function mountField(changes: Partial<Record<keyof BenchChanges, unknown>>, more: Partial<Schemas['FieldOut']> = {}, family: 'metric' | 'inch' = 'metric') {
  return mount(ReadingField, {
    props: { field: { ...field, ...more }, sampleId: 3, family, changes: changes as unknown as BenchChanges },
    attachTo: document.body,
  })
}

enableAutoUnmount(afterEach)
beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
  document.body.innerHTML = ''
  forgetTyped()
})

describe('a reading field', () => {
  it('hands over what was typed with the family, clears, and goes on', async () => {
    const add = vi.fn().mockResolvedValue({})
    const wrapper = mountField({ addReading: add }, {}, 'inch')
    await wrapper.get('input').setValue('63 5/8')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(add).toHaveBeenCalledWith({
      key: 'media.strip_length', text: '63 5/8', family: 'inch', provenance: null, instrument: null, note: null, confirm: false, hole_group_id: null,
    })
    expect((wrapper.get('input').element as HTMLInputElement).value).toBe('')
    expect(wrapper.emitted('next')).toHaveLength(1)
  })
  it('enters what is typed when the focus leaves the row, once, and not where only another program is looked at', async () => {
    const add = vi.fn().mockResolvedValue({})
    const wrapper = mountField({ addReading: add })
    await wrapper.get('input').setValue('98 mm')
    const focus = vi.spyOn(document, 'hasFocus').mockReturnValue(false)
    await wrapper.get('.row').trigger('focusout', { relatedTarget: null })
    focus.mockReturnValue(true)
    await wrapper.get('.row').trigger('focusout', { relatedTarget: wrapper.get('input').element })
    expect(add).not.toHaveBeenCalled()
    await wrapper.get('.row').trigger('focusout', { relatedTarget: document.body })
    enterTyped()
    wrapper.unmount()
    expect(add).toHaveBeenCalledTimes(1)
    expect(wrapper.emitted('next')).toBeUndefined()
  })
  it('enters what is typed before another sample is shown in its place, and brings what is refused back there', async () => {
    let refuse: (error: Error) => void = () => undefined
    const add = vi.fn().mockReturnValue(new Promise((_, reject) => (refuse = reject)))
    const wrapper = mountField({ addReading: add })
    await wrapper.get('input').setValue('98 mn')
    enterTyped()
    await wrapper.setProps({ sampleId: 4 })
    refuse(new ProblemError({ detail: 'no such unit', where: '', missing: [] }))
    await flushPromises()
    expect((wrapper.get('input').element as HTMLInputElement).value).toBe('')
    expect([refusedOf(3), refusedOf(4)]).toEqual([['media.strip_length'], []])
    await wrapper.setProps({ sampleId: 3 })
    expect((wrapper.get('input').element as HTMLInputElement).value).toBe('98 mn')
    expect(wrapper.text()).toContain('no such unit')
    enterTyped()
    expect(add).toHaveBeenCalledTimes(1)
  })
  it('has what was typed again after the page was loaded again', async () => {
    const first = mountField({ addReading: vi.fn().mockReturnValue(new Promise(() => undefined)) })
    await first.get('input').setValue('9')
    expect(sessionStorage.getItem('tabrel.typed')).toContain('["3//media.strip_length",{"text":"9","refused":"","was":""}]')
  })
  it('keeps the text and says why beside it when it is refused', async () => {
    const add = vi.fn().mockRejectedValue(new ProblemError({ detail: 'no such unit', where: '', missing: [] }))
    const wrapper = mountField({ addReading: add })
    await wrapper.get('input').setValue('3 mn')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(wrapper.text()).toContain('no such unit')
    expect((wrapper.get('input').element as HTMLInputElement).value).toBe('3 mn')
  })
  it('goes on at once and, when refused, does not take the focus from a field being typed in', async () => {
    const add = vi.fn().mockRejectedValue(new ProblemError({ detail: 'no such unit', where: '', missing: [] }))
    const wrapper = mountField({ addReading: add })
    const other = document.body.appendChild(document.createElement('input'))
    await wrapper.get('input').setValue('3 mn')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    expect(wrapper.emitted('next')).toHaveLength(1)
    other.value = '4'
    other.focus()
    await flushPromises()
    expect(document.activeElement).toBe(other)
    wrapper.unmount()
  })
  it('goes on without a reading on an empty Enter and back with Shift', async () => {
    const add = vi.fn()
    const wrapper = mountField({ addReading: add })
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    await wrapper.get('input').trigger('keydown', { key: 'Enter', shiftKey: true })
    expect([wrapper.emitted('next'), wrapper.emitted('previous')].map((seen) => seen?.length)).toEqual([1, 1])
    expect(add).not.toHaveBeenCalled()
  })
  it('shows the mean in the family asked for', async () => {
    const wrapper = mountField({})
    expect(wrapper.get('.mean').text()).toMatch(/1620.0\s*± 9.5\s*mm/)
    await wrapper.setProps({ family: 'inch' })
    expect(wrapper.get('.mean').text()).toMatch(/63.78\s*± 0.37\s*in/)
  })
  it('echoes what the server understood, and only the latest', async () => {
    vi.spyOn(client, 'POST').mockResolvedValue({ data: echoed, response: new Response() } as never)
    const wrapper = mountField({})
    await wrapper.get('input').setValue('9')
    await vi.advanceTimersByTimeAsync(200)
    await flushPromises()
    expect(wrapper.get('.hint').text()).toContain('0.3543 in')
    await wrapper.get('input').setValue('')
    expect(wrapper.get('.hint').text()).not.toContain('0.3543 in')
  })
  it('takes a reading that ends with Tab, as a caliper that types may send it', async () => {
    const add = vi.fn().mockResolvedValue({})
    const wrapper = mountField({ addReading: add })
    await wrapper.get('input').setValue('98.4')
    await wrapper.get('input').trigger('keydown', { key: 'Tab' })
    expect(add).toHaveBeenCalledWith(expect.objectContaining({ text: '98.4' }))
    expect(wrapper.emitted('next')).toHaveLength(1)
  })
  it('puts what was likely meant on F2 and records a confirmation on Enter', async () => {
    const asked = { ...echoed, question: 'ten times too large, 0.9 mm meant?', correction: '0.9 mm' }
    vi.spyOn(client, 'POST').mockResolvedValue({ data: asked, response: new Response() } as never)
    const add = vi.fn().mockResolvedValue({})
    const wrapper = mountField({ addReading: add })
    const input = wrapper.get('input')
    await input.setValue('9')
    await vi.advanceTimersByTimeAsync(200)
    await flushPromises()
    await input.trigger('keydown', { key: 'F2' })
    expect((input.element as HTMLInputElement).value).toBe('0.9 mm')
    await input.setValue('9')
    await vi.advanceTimersByTimeAsync(200)
    await flushPromises()
    await input.trigger('keydown', { key: 'Enter' })
    expect(add).toHaveBeenCalledWith(expect.objectContaining({ text: '9', confirm: true }))
  })
  it('corrects a reading already taken, or confirms it, from the empty field', async () => {
    const [correct, confirm] = [vi.fn().mockResolvedValue({}), vi.fn().mockResolvedValue({})]
    const warnings = [{ message: 'ten times too large', reading_id: 7, correction: '0.16 m', confirmed: false }]
    const wrapper = mountField({ correct, confirm }, { warnings })
    await wrapper.get('input').trigger('keydown', { key: 'F2' })
    expect(correct).toHaveBeenCalledWith(7, { text: '0.16 m', family: 'metric', reason: 'slip' })
    await wrapper.get('input').trigger('keydown', { key: 'F4' })
    expect(confirm).toHaveBeenCalledWith(7)
  })
  it('sends provenance, instrument and note once, then starts afresh', async () => {
    const add = vi.fn().mockResolvedValue({})
    const wrapper = mountField({ addReading: add })
    await wrapper.get('[data-detail="provenance"]').setValue('by_eye')
    await wrapper.get('[data-detail="instrument"]').setValue('caliper')
    await wrapper.get('[data-detail="note"]').setValue('wet')
    for (const text of ['9', '10']) {
      await wrapper.get('input').setValue(text)
      await wrapper.get('input').trigger('keydown', { key: 'Enter' })
      await flushPromises()
    }
    expect(add.mock.calls[0]![0]).toMatchObject({ provenance: 'by_eye', instrument: 'caliper', note: 'wet' })
    expect(add.mock.calls[1]![0]).toMatchObject({ provenance: null, instrument: null, note: null })
  })
  it('takes the state that arrow keys come to rest on, once, not those they pass', async () => {
    const setState = vi.fn().mockResolvedValue({})
    const state = mountField({ setState }, { estimate: null, readings: [] }).get('[data-detail="state"]')
    for (const passed of ['not_measured', 'could_not_be_found']) {
      await state.trigger('keydown', { key: 'ArrowDown' })
      await state.setValue(passed)
    }
    expect(setState).not.toHaveBeenCalled()
    await state.trigger('keydown', { key: 'Enter' })
    await state.trigger('blur')
    expect(setState).toHaveBeenCalledExactlyOnceWith('media.strip_length', 'could_not_be_found')
    await state.trigger('pointerdown')
    await state.setValue('lost')
    expect(setState).toHaveBeenLastCalledWith('media.strip_length', 'lost')
  })
  it('says a state in words instead of a number', () => {
    expect(mountField({}, { estimate: null, readings: [], state: 'lost' }).get('.mean').text()).toBe('lost')
    expect(mountField({}, { estimate: null, readings: [] }).get('.mean').text()).toBe('not measured')
  })
})
