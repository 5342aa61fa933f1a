import { describe, expect, it } from 'vitest'
import { mount } from '@vue/test-utils'
import WhatIfPanel from './WhatIfPanel.vue'
import { isChanged, typedHoles, typedNumber } from './scenario'

describe('what is typed in a scenario', () => {
  it('is a number above zero in the unit shown, or nothing', () => {
    expect(typedNumber('', 1)).toBeNull()
    expect(typedNumber('1,5', 1)).toBe(1.5)
    expect(typedNumber('0.5', 1 / 25.4)).toBe(12.7)
    expect(typedNumber('-3', 1)).toBeNaN()
  })
  it('is a count of holes with their size', () => {
    expect(typedHoles('6 x 0.4 mm', 1)).toEqual({ count: 6, diameter_mm: 0.4 })
    expect(typedHoles('4 × 0.2', 1 / 25.4)).toEqual({ count: 4, diameter_mm: 5.08 })
    expect(typedHoles('4 x 0.2 in', 1)).toEqual({ count: 4, diameter_mm: 5.08 })
    expect(typedHoles(' ', 1)).toBeNull()
    expect(typedHoles('six holes', 1)).toBeUndefined()
  })
  it('counts as changed only where something differs', () => {
    expect(isChanged({ name: 'x' })).toBe(false)
    expect(isChanged({ name: 'x', loading: 1, without_adapter: null, leak: null })).toBe(false)
    expect(isChanged({ name: 'x', regulator: 'stuck_open' })).toBe(true)
  })
  it('leaves the draft alone and says why when it is no number', async () => {
    const wrapper = mount(WhatIfPanel, {
      props: {
        modelValue: { name: 'what if', loading: 2 }, family: 'metric', grades: [], kept: [], problem: '',
        keep: () => Promise.resolve(), remove: () => Promise.resolve(),
      },
    })
    await wrapper.get('#wi-stud').setValue('wide')
    await wrapper.get('#wi-stud').trigger('change')
    expect(wrapper.emitted('update:modelValue')).toBeUndefined()
    expect(wrapper.text()).toContain('Type a number above zero')
    await wrapper.get('#wi-stud').setValue('12.5')
    await wrapper.get('#wi-stud').trigger('change')
    expect(wrapper.emitted('update:modelValue')!.at(-1)).toEqual([{ name: 'what if', loading: 2, stud_bore_mm: 12.5 }])
    await wrapper.get('form').trigger('submit')
    expect(wrapper.text()).toContain('Give it a name')
  })
})
