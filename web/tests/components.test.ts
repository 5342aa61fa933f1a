import { mount, flushPromises } from '@vue/test-utils'
import PrimeVue from 'primevue/config'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import ReadingChip from '@/components/ReadingChip.vue'
import ReadingField from '@/components/ReadingField.vue'

const plugins = [PrimeVue]
const reading: Schemas['ReadingOut'] = {
  id: 7, text: '1.62 m', taken_at: '2026-11-01T08:00:00Z', struck_out_reason: null, metric: '1620 mm', inch: '63.780 in', doubtful: false,
}
const field: Schemas['FieldOut'] = {
  key: 'media.strip_length', title: 'strip length', metric_unit: 'mm', inch_unit: 'in', instrument: 'tape',
  readings: [reading],
  estimate: { metric_value: 1620, metric_uncertainty: 9.5, inch_value: 63.7795, inch_uncertainty: 0.373 },
  warnings: [],
}

beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
})

describe('a reading field', () => {
  it('hands over what was typed with the family, clears, and goes on', async () => {
    const add = vi.fn().mockResolvedValue({})
    const wrapper = mount(ReadingField, { props: { field, family: 'inch', add }, global: { plugins } })
    await wrapper.get('input').setValue('63 3/8')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(add).toHaveBeenCalledWith({ key: 'media.strip_length', text: '63 3/8', family: 'inch' })
    expect((wrapper.get('input').element as HTMLInputElement).value).toBe('')
    expect(wrapper.emitted('next')).toHaveLength(1)
  })
  it('keeps the text and says why beside it when it is refused', async () => {
    const add = vi.fn().mockRejectedValue(new ProblemError({ message: 'no such unit', where: '', missing: [] }))
    const wrapper = mount(ReadingField, { props: { field, family: 'metric', add }, global: { plugins } })
    await wrapper.get('input').setValue('3 mn')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(wrapper.text()).toContain('no such unit')
    expect((wrapper.get('input').element as HTMLInputElement).value).toBe('3 mn')
  })
  it('goes on at once and, when refused, does not take the focus from a field being typed in', async () => {
    const add = vi.fn().mockRejectedValue(new ProblemError({ message: 'no such unit', where: '', missing: [] }))
    const wrapper = mount(ReadingField, { props: { field, family: 'metric', add }, global: { plugins }, attachTo: document.body })
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
    const wrapper = mount(ReadingField, { props: { field, family: 'metric', add }, global: { plugins } })
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    await wrapper.get('input').trigger('keydown', { key: 'Enter', shiftKey: true })
    expect([wrapper.emitted('next'), wrapper.emitted('previous')].map((seen) => seen?.length)).toEqual([1, 1])
    expect(add).not.toHaveBeenCalled()
  })
  it('shows the mean in the family asked for', async () => {
    const wrapper = mount(ReadingField, { props: { field, family: 'metric', add: vi.fn() }, global: { plugins } })
    expect(wrapper.get('.mean').text()).toMatch(/1620.0\s*± 9.5\s*mm/)
    await wrapper.setProps({ family: 'inch' })
    expect(wrapper.get('.mean').text()).toMatch(/63.78\s*± 0.37\s*in/)
  })
  it('echoes what the server understood, and only the latest', async () => {
    const answer = { text: '9 mm', metric: '9 mm', inch: '0.3543 in', problem: null, question: null }
    vi.spyOn(client, 'POST').mockResolvedValue({ data: answer, response: new Response() } as never)
    const wrapper = mount(ReadingField, { props: { field, family: 'metric', add: vi.fn() }, global: { plugins } })
    await wrapper.get('input').setValue('9')
    await vi.advanceTimersByTimeAsync(200)
    await flushPromises()
    expect(wrapper.get('.hint').text()).toContain('0.3543 in')
    await wrapper.get('input').setValue('')
    expect(wrapper.get('.hint').text()).not.toContain('0.3543 in')
  })
})

describe('a reading chip', () => {
  it('asks for a reason in place and does not take an empty one', async () => {
    const wrapper = mount(ReadingChip, { props: { reading, family: 'metric' }, global: { plugins } })
    await wrapper.get('button').trigger('keydown', { key: 'Delete' })
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    expect(wrapper.emitted('strike')).toBeUndefined()
    expect(wrapper.text()).toContain('why it does not count')
    await wrapper.get('input').setValue('pulled too hard')
    await wrapper.get('input').trigger('keydown', { key: 'Enter' })
    expect(wrapper.emitted('strike')).toEqual([['pulled too hard']])
  })
  it('keeps a struck reading in sight and restores it', async () => {
    const struck = { ...reading, struck_out_reason: 'wet' }
    const wrapper = mount(ReadingChip, { props: { reading: struck, family: 'metric' }, global: { plugins } })
    expect(wrapper.get('s').text()).toBe('1.62 m')
    expect(wrapper.text()).toContain('wet')
    await wrapper.get('button').trigger('click')
    expect(wrapper.emitted('restore')).toHaveLength(1)
  })
})

describe('an answer of the server', () => {
  it('becomes data, its own sentence, or one of ours', async () => {
    const response = new Response(null, { status: 500 })
    await expect(unwrap(Promise.resolve({ data: 1, response }))).resolves.toBe(1)
    const error = { message: 'no', where: 'x', missing: ['y'] }
    await expect(unwrap(Promise.resolve({ error, response }))).rejects.toMatchObject({ message: 'no', where: 'x', missing: ['y'] })
    await expect(unwrap(Promise.resolve({ error: 'oops', response }))).rejects.toThrow('answered 500')
    await expect(unwrap(Promise.reject(new TypeError('net')))).rejects.toThrow('does not answer')
  })
})
