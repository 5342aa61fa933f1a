import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { client } from '@/api/client'
import { isChanged } from './scenario'
import WhatIfPanel from './WhatIfPanel.vue'

afterEach(() => vi.restoreAllMocks())

const answer = (status: number, body: object) =>
  Promise.resolve({ response: new Response(null, { status }), ...(status < 400 ? { data: body } : { error: body }) }) as never

describe('what is typed in a scenario', () => {
  it('counts as changed only where something differs', () => {
    expect(isChanged({ name: 'x' })).toBe(false)
    expect(isChanged({ name: 'x', loading: 1, without_adapter: null, leak: null })).toBe(false)
    expect(isChanged({ name: 'x', regulator: 'stuck_open' })).toBe(true)
  })
  it('is understood by the server; what it refuses stays in the field with its reason and changes nothing', async () => {
    const post = vi.spyOn(client, 'POST')
    const wrapper = mount(WhatIfPanel, {
      props: {
        modelValue: { name: 'what if', loading: 2 }, family: 'inch', grades: [], saved: [], problem: '',
        save: () => Promise.resolve(), remove: () => Promise.resolve(),
      },
    })
    const field = wrapper.get<HTMLInputElement>('#wi-stud')
    post.mockReturnValueOnce(answer(422, { message: "'wide' is not a number with a unit.", where: 'stud_bore', missing: [] }))
    await field.setValue('wide')
    await field.trigger('change')
    await flushPromises()
    expect(wrapper.emitted('update:modelValue')).toBeUndefined()
    expect(wrapper.text()).toContain("'wide' is not a number with a unit.")
    expect(field.element.value).toBe('wide')
    post.mockReturnValueOnce(answer(200, { name: 'what if', loading: 2, stud_bore_mm: 20 }))
    await field.setValue('20 mm')
    await field.trigger('change')
    await flushPromises()
    expect(post.mock.calls.at(-1)![1]).toMatchObject({ body: { key: 'stud_bore', text: '20 mm', family: 'inch' } })
    expect(wrapper.emitted('update:modelValue')!.at(-1)).toEqual([{ name: 'what if', loading: 2, stud_bore_mm: 20 }])
    await wrapper.get('form').trigger('submit')
    expect(wrapper.text()).toContain('Give it a name')
  })
})
