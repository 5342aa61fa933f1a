import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import KeptText from './KeptText.vue'

const field = (text: string) => mount(KeptText, { props: { text, label: 'title' } })

async function type(wrapper: ReturnType<typeof field>, text: string) {
  wrapper.get('input').element.value = text
  await wrapper.get('input').trigger('input')
}

describe('text that is kept once it is left', () => {
  it('is never replaced while it is typed, and says that it was changed elsewhere', async () => {
    const wrapper = field('old')
    await type(wrapper, 'mine')
    await wrapper.setProps({ text: 'theirs' })
    expect(wrapper.get('input').element.value).toBe('mine')
    expect(wrapper.get('[role=alert]').text()).toContain('Another window has changed this')
    await wrapper.get('input').trigger('keydown', { key: 'Escape' })
    expect(wrapper.get('input').element.value).toBe('theirs')
    expect(wrapper.emitted('keep')).toBeUndefined()
  })
  it('follows what comes from elsewhere while nothing is typed', async () => {
    const wrapper = field('old')
    await wrapper.setProps({ text: 'new' })
    expect(wrapper.get('input').element.value).toBe('new')
    await wrapper.get('input').trigger('change')
    expect(wrapper.emitted('keep')).toBeUndefined()
  })
  it('is kept once where it was changed', async () => {
    const wrapper = field('')
    await type(wrapper, 'mine')
    await wrapper.get('input').trigger('change')
    expect(wrapper.emitted('keep')).toEqual([['mine']])
  })
})
