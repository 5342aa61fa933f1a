import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import FlowSplitPanel from './FlowSplitPanel.vue'

describe('the flow split', () => {
  it('gives flow and share of media, bypass and defects', () => {
    const wrapper = mount(FlowSplitPanel, { props: { section: null, flow: 10, bypass: 0.25, defects: 0.05, family: 'metric' } })
    const told = (name: string) => wrapper.get(`[data-flow="${name}"]`).text()
    expect(told('media')).toContain('7.00 L/min')
    expect(told('bypass')).toContain('25 %')
    expect(told('defects')).toContain('5.0 %')
    expect(mount(FlowSplitPanel, { props: { section: null, flow: null, bypass: 0, defects: 0, family: 'metric' } }).text()).toContain('below the pumpability limit')
  })
})
