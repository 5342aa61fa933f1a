import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type Schemas } from '@/api/client'
import ReadingChip from './ReadingChip.vue'

const reading: Schemas['ReadingOut'] = {
  id: 7, text: '1.62 m', taken_at: '2026-11-01T08:00:00Z', set_aside_reason: null, metric: '1620 mm', inch: '63.780 in', outlier: false,
  instrument: null, provenance: 'measured', note: null, confirmed: false, used: true,
}
beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
  document.body.innerHTML = ''
})

describe('a reading chip', () => {
  it('asks for a reason in place and does not take an empty one', async () => {
    const wrapper = mount(ReadingChip, { props: { reading, usualInstrument: 'tape' } })
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
    const wrapper = mount(ReadingChip, { props: { reading: aside, usualInstrument: 'tape' } })
    expect(wrapper.get('s').text()).toBe('1.62 m')
    expect(wrapper.text()).toContain('wet')
    await wrapper.get('button').trigger('click')
    expect(wrapper.emitted('useAgain')).toHaveLength(1)
  })
})
