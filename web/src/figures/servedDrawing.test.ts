import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import ServedDrawing from './ServedDrawing.vue'

const svg = `<svg data-line='0.5'><g data-pick='can.wall_thickness' data-lit='can.wall_thickness'><path id='wall'/></g>
<g data-pick='holes.inlet[1]' data-lit='holes.inlet[1]'><path id='hole'/></g>
<g data-size='plate' data-lit='can.outside_diameter can.circumference'><text/></g>
<g data-way='bypass'><path/></g><g data-way='defects'><path/></g></svg>`

function drawn(props: object) {
  return mount(ServedDrawing, { props: { drawing: { svg, alt: '', note: '', problems: [] }, family: 'metric', ...props } })
}
const lit = (wrapper: ReturnType<typeof drawn>) => wrapper.findAll('.lit').map((part) => part.attributes('data-lit'))

describe('a drawing as it is served', () => {
  it('lights the part and the size of the reading in hand, and no other', async () => {
    const wrapper = drawn({ lit: 'can.circumference' })
    expect(lit(wrapper)).toEqual(['can.outside_diameter can.circumference'])
    await wrapper.setProps({ lit: 'holes.inlet[1].width' })
    expect(lit(wrapper)).toEqual(['holes.inlet[1]'])
    await wrapper.setProps({ lit: 'holes.inlet[12].width' })
    expect(lit(wrapper)).toEqual([])
  })
  it('leads to the reading of the part that is chosen', async () => {
    const wrapper = drawn({})
    await wrapper.find('#wall').trigger('click')
    await wrapper.find('#hole').trigger('click')
    expect(wrapper.emitted('pick')).toEqual([['can.wall_thickness'], ['holes.inlet[1]']])
  })
  it('draws each way of the oil as wide as what goes there, and none where nothing does', async () => {
    const [bypass, defects] = ["[data-way='bypass']", "[data-way='defects']"]
    const wrapper = drawn({})
    expect(wrapper.find(defects).attributes('style')).toContain('none')
    await wrapper.setProps({ ways: { bypass: 0, defects: 3 } })
    expect(wrapper.find(bypass).attributes('style')).toContain('none')
    expect(wrapper.find(defects).attributes('style')).toContain('--way: 1.5')
  })
})
