import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type Schemas } from '@/api/client'
import ObservationField from './ObservationField.vue'

beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
  document.body.innerHTML = ''
})

describe('pictured choices', () => {
  const observation: Schemas['ObservationOut'] = {
    key: 'gasket.section', title: 'section', part: 'Gasket', stage: 'outside', whole_only: false, closed: false, several: false, synonyms: [],
    choices: [{ value: 'square', meaning: 'a' }, { value: 'captured lip', meaning: 'b' }],
    views: ['Captured: it stays.', 'Square: it turns.'],
  }
  it('are chosen by number, removed by Delete, and show the default view first', async () => {
    const set = vi.fn().mockResolvedValue({})
    const wrapper = mount(ObservationField, { props: { sampleId: 1, observation, value: null, set } })
    const group = wrapper.get('[role="radiogroup"]')
    await group.trigger('keydown', { key: '2' })
    await vi.advanceTimersByTimeAsync(200)
    expect(set).toHaveBeenCalledWith('gasket.section', 'captured lip')
    await wrapper.setProps({ value: 'captured lip' })
    await group.trigger('keydown', { key: 'Delete' })
    expect(set).toHaveBeenLastCalledWith('gasket.section', null)
    await wrapper.setProps({ value: null })
    await vi.advanceTimersByTimeAsync(1)
    set.mockClear()
    for (const key of ['1', '2', '.', '4']) await group.trigger('keydown', { key })
    await vi.advanceTimersByTimeAsync(200)
    expect(set).not.toHaveBeenCalled() // a caliper that types was read here by mistake
    set.mockReturnValue(new Promise(() => undefined)) // the second choice follows before the first is answered
    for (let times = 0; times < 2; times++) await group.trigger('keydown', { key: 'ArrowRight' })
    await group.trigger('keydown', { key: 'Enter' })
    expect(set.mock.calls.map(([, text]) => text)).toEqual(['square', 'captured lip'])
    expect(wrapper.emitted('next')).toHaveLength(1)
    await group.trigger('keydown', { key: '1' }) // the next key follows at once: the choice is made first
    await group.trigger('keydown', { key: 'Enter' })
    expect(set).toHaveBeenLastCalledWith('gasket.section', 'square')
    expect(wrapper.emitted('next')).toHaveLength(2)
    await group.trigger('keydown', { key: 'v' })
    expect(wrapper.get('strong').text()).toBe('Captured: it stays.')
    expect(wrapper.findAll('svg path').length).toBeGreaterThan(2)
  })
  it('of which several hold are chosen each in turn, however fast, and not by a number with a point', async () => {
    const set = vi.fn().mockReturnValue(new Promise(() => undefined))
    const wrapper = mount(ObservationField, { props: { sampleId: 1, observation: { ...observation, several: true, choices: ['none', 'rust', 'dents'].map((value) => ({ value, meaning: '' })) }, value: null, set } })
    const group = wrapper.get('[role="group"]')
    for (const key of ['3', '2', 'Enter']) await group.trigger('keydown', { key })
    expect(set).toHaveBeenLastCalledWith('gasket.section', 'dents; rust')
    set.mockClear()
    for (const key of ['1', '.', '2', 'Enter']) await group.trigger('keydown', { key })
    expect(set).not.toHaveBeenCalled()
  })
})
