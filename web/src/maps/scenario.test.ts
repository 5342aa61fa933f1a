import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { client } from '@/api/client'
import { changedInputs, isChanged } from './scenario'
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
  it('is named input by input, and each is taken back alone', () => {
    const draft = { name: 'x', loading: 3, stud_bore_mm: 12.7, regulator: 'stuck_open' as const }
    const [loading, stud, regulator] = changedInputs(draft, 'inch')
    expect([loading!.words, stud!.words]).toEqual(['media 3 times as resistant', 'stud bore 0.5 in'])
    expect(regulator!.words).toContain('stuck open')
    expect(changedInputs({ ...draft, ...stud!.reset }, 'inch').map((input) => input.words)).not.toContain('stud bore 0.5 in')
    expect(changedInputs({ name: 'x' }, 'metric')).toEqual([])
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
    post.mockReturnValueOnce(answer(422, { detail: "'wide' is not a number with a unit.", where: 'stud_bore', missing: [] }))
    await field.setValue('wide')
    await flushPromises()
    expect(wrapper.emitted('update:modelValue')).toBeUndefined()
    expect(wrapper.text()).toContain("'wide' is not a number with a unit.")
    expect(field.element.value).toBe('wide')
    post.mockReturnValueOnce(answer(200, { name: 'what if', loading: 2, stud_bore_mm: 20 }))
    await field.setValue('20 mm')
    await flushPromises()
    expect(post.mock.calls.at(-1)![1]).toMatchObject({ body: { key: 'stud_bore', text: '20 mm', family: 'inch' } })
    expect(wrapper.emitted('update:modelValue')!.at(-1)).toEqual([{ name: 'what if', loading: 2, stud_bore_mm: 20 }])
    await wrapper.get('form').trigger('submit')
    expect(wrapper.text()).toContain('Give it a name')
  })
  it('leaves alone what is being typed in another field while the server is asked, and what was changed meanwhile', async () => {
    const post = vi.spyOn(client, 'POST')
    let model: object = { name: 'what if' }
    const wrapper = mount(WhatIfPanel, {
      props: {
        modelValue: { name: 'what if' }, family: 'metric', grades: [], saved: [], problem: '',
        save: () => Promise.resolve(), remove: () => Promise.resolve(),
        'onUpdate:modelValue': (changed: object) => {
          model = changed
          void wrapper.setProps({ modelValue: changed as never })
        },
      },
    })
    let say: (body: object) => void = () => undefined
    post.mockReturnValueOnce(new Promise((resolve) => (say = (body) => resolve({ response: new Response(), data: body }))) as never)
    await wrapper.get('#wi-stud').setValue('12')
    const loading = wrapper.get<HTMLInputElement>('#wi-loading')
    loading.element.value = '3'
    await loading.trigger('input') // still being typed
    await wrapper.setProps({ modelValue: { name: 'what if', regulator: 'stuck_open' } })
    await flushPromises()
    say({ name: 'what if', stud_bore_mm: 12 })
    await flushPromises()
    expect(model).toEqual({ name: 'what if', regulator: 'stuck_open', stud_bore_mm: 12 })
    expect(loading.element.value).toBe('3')
  })
})
