import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import PressureProfilePanel from './PressureProfilePanel.vue'

describe('the pressure profile', () => {
  const props = {
    steps: [{ name: 'cooler', title: 'Oil cooler', from: 500, to: 400 }, { name: 'media', title: 'Media', from: 400, to: 300 }],
    pump: 500, inlet: 400, gallery: 300, gauge: 'filter_inlet' as const, unchanged: null, family: 'metric' as const,
  }
  it('shows what a gauge before and after the filter shows, and what the engine gets', () => {
    const wrapper = mount(PressureProfilePanel, { props })
    const told = (name: string) => wrapper.get(`[data-gauge="${name}"]`).text()
    expect([told('before'), told('after'), told('engine')]).toEqual(['400', '300', '300'])
    expect(wrapper.get('[data-figure="pressure-profile"]').attributes('aria-label')).toContain('oil cooler 100, media 100')
    expect(mount(PressureProfilePanel, { props: { ...props, family: 'inch' } }).get('[data-gauge="before"]').text()).toBe('58.0')
  })
  it('tells that a gauge before a clogged filter rises while the engine gets less', () => {
    const wrapper = mount(PressureProfilePanel, { props: { ...props, unchanged: { pump: 490, inlet: 380, gallery: 320 } } })
    expect(wrapper.text()).toContain('a gauge before it rises by 20, one after it falls by 20 kPa')
  })
})
