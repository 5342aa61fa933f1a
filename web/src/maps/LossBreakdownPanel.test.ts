import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import LossBreakdownPanel from './LossBreakdownPanel.vue'
import type { LossRow } from './lossBreakdown'

const row = (name: string, viscous: number, inertial: number): LossRow => ({
  name, title: name, viscous, inertial, spring: 0, total: viscous + inertial, share: (viscous + inertial) / 100,
})

describe('the pressure-loss breakdown', () => {
  it('draws each part against the longest bar of now and before', () => {
    const wrapper = mount(LossBreakdownPanel, {
      props: { rows: [row('media', 40, 0), row('outlet', 5, 5)], unchanged: [row('media', 80, 0)], sentence: 'said', family: 'metric' },
    })
    const media = wrapper.get('[data-part="media"]')
    expect(media.get('.viscous').attributes('style')).toContain('width: 50%')
    expect(media.get('i.was').attributes('style')).toContain('left: 100%')
    expect(wrapper.get('[data-part="outlet"] .inertial').attributes('style')).toContain('width: 6.25%')
    expect(wrapper.find('[data-part="outlet"] i.was').exists()).toBe(false)
  })
})
