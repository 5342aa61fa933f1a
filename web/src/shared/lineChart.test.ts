import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { holding, linear, logarithmic } from './charts'
import LineChart from './LineChart.vue'

const line = { key: 'a', name: 'A', xs: [0, 1, 2, 3], ys: [1, 10, null, 4], low: [0.5, 5, null, 2], high: [2, 20, null, 8], ink: 'red' }
const chart = (props: object = {}) => mount(LineChart, { props: { x: linear(0, 3), y: linear(0, 20), lines: [line], words: 'a chart', ...props } })

describe('axes', () => {
  it('share the frame between their ends, and give the value back', () => {
    for (const axis of [linear(-5, 15), logarithmic(2, 2000)]) {
      const [low, high] = [axis.value(0), axis.value(1)]
      expect([axis.share(low), axis.share(high)]).toEqual([expect.closeTo(0), expect.closeTo(1)])
      expect(axis.value(axis.share(axis.value(0.3)))).toBeCloseTo(axis.value(0.3), 9)
    }
    expect(logarithmic(2, 2000).share(0)).toBe(0) // what is below lies at its end
  })
  it('hold all of what is drawn, logarithmic only where all is above nought', () => {
    const log = holding([line], true)
    expect(log.share(0.5)).toBeGreaterThan(0)
    expect(log.share(20)).toBeLessThan(1)
    expect(holding([{ ys: [-5, 0, 5] }], false).share(-5)).toBeGreaterThanOrEqual(0)
    expect(holding([{ ys: [0, 0] }], true).ticks.every(Number.isFinite)).toBe(true)
    expect(holding([{ ys: [null] }], false).ticks.every(Number.isFinite)).toBe(true)
  })
})

describe('a chart of lines', () => {
  it('breaks line and band where there is nothing, and says what it is', () => {
    const wrapper = chart()
    expect(wrapper.find('[data-line=a]').attributes('d')!.match(/M/g)).toHaveLength(2)
    expect(wrapper.find('[data-band=a]').attributes('d')).not.toContain('NaN')
    expect(wrapper.find('svg').attributes('aria-label')).toBe('a chart')
  })
  it('reads each named line by keys, between its places, and says it', async () => {
    const wrapper = chart()
    await wrapper.trigger('keydown', { key: 'ArrowDown' })
    expect(wrapper.emitted('update:at')![0]![0]).toBeCloseTo(1.2) // a tenth left of the middle
    await wrapper.setProps({ at: 0.5 })
    expect(wrapper.attributes('aria-valuetext')).toContain('A 5.50')
    expect(wrapper.find('[data-crosshair] text').text()).toBe('A 5.50')
    await wrapper.setProps({ at: 2.1 })
    expect(wrapper.findAll('[data-crosshair] text')).toHaveLength(0) // there is nothing
    await wrapper.setProps({ at: 0.9, lines: [{ ...line, isPoints: true }] })
    expect(wrapper.find('[data-crosshair] text').text()).toBe('A 10.0')
  })
  it('has no crosshair where no line has a name', () => {
    expect(chart({ lines: [{ ...line, name: undefined }] }).attributes('role')).toBeUndefined()
  })
})
