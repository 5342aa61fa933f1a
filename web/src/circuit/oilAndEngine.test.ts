import { mount, flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { ProblemError, type Schemas } from '@/api/client'
import CircuitDrawing from './CircuitDrawing.vue'
import EngineLibrary from './EngineLibrary.vue'
import HotPointPanel from './HotPointPanel.vue'
import OilPanel from './OilPanel.vue'

const problem = (message: string) => new ProblemError({ detail: message, where: '', missing: [] })

describe('oil and engine', () => {
  const line: Schemas['OilLineOut'] = {
    temperature_c: [-25, 15, 40, 100], kinematic_mm2_s: [4000, 260, 66, 11], dynamic_mpa_s: [3500, 222, 55, 9], density_kg_m3: [879, 854, 838, 800],
    points: [
      { temperature_c: 40, stated: 66, kinematic_mm2_s: 66, dynamic_mpa_s: 55, is_dynamic: false, high_shear: false, typed_temperature: null, typed_viscosity: null },
      { temperature_c: 100, stated: 11, kinematic_mm2_s: 11, dynamic_mpa_s: 9, is_dynamic: false, high_shear: false, typed_temperature: '212 °F', typed_viscosity: null },
    ],
    coldest_point_c: 40, warmest_point_c: 100, coldest_pumping_c: -30, viscosity: [],
  }
  it('reads both viscosities off the line and marks where it is only extended', async () => {
    const wrapper = mount(OilPanel, { props: { line, revision: 3, grades: ['5W-30'], family: 'metric', setOil: () => Promise.resolve() } })
    expect(wrapper.get('[data-oil="reading"]').text()).toContain('3500 mPa·s dynamic · 4000 mm²/s kinematic')
    expect(wrapper.get('[data-oil="reading"]').text()).toContain('extended beyond the points')
    await wrapper.get('.read input').setValue('40')
    await wrapper.get('.read input').trigger('change')
    expect(wrapper.get('[data-oil="reading"]').text()).not.toContain('extended')
  })
  it('reads the line in the unit of the family, and never converts a point that was stated', async () => {
    const setOil = vi.fn().mockResolvedValue(undefined)
    const wrapper = mount(OilPanel, { props: { line, revision: 3, grades: [], family: 'metric' as const, setOil } })
    const text = (label: string) => (wrapper.get(`[aria-label="${label}"]`).element as HTMLInputElement).value
    await wrapper.get('button.link').trigger('click')
    await wrapper.get('[aria-label="Temperature of point 3 in °C"]').setValue('0')
    await wrapper.setProps({ family: 'inch' })
    expect([text('Temperature of point 1 in °F'), text('Temperature of point 2 in °F'), text('Temperature of point 3 in °F')]).toEqual(['40 °C', '212 °F', '0'])
    expect(text('Temperature to read the line at, in °F')).toBe('-13')
    await wrapper.get('.read input').setValue('104')
    await wrapper.get('.read input').trigger('change')
    expect(wrapper.get('[data-oil="reading"]').text()).toContain('55.0 mPa·s dynamic · 66.0 mm²/s kinematic')
    await wrapper.get('[aria-label="Viscosity of point 3"]').setValue('900')
    await wrapper.get('[aria-label="Viscosity of point 3"]').trigger('change')
    const sent = setOil.mock.calls.at(-1)![0] as Schemas['OilIn']
    expect([sent.family, ...sent.rows!.map((row) => row.temperature)]).toEqual(['inch', '40 °C', '212 °F', '0'])
  })
  it('hands the points over as they were stated, with the revision that was seen, and keeps what is refused', async () => {
    const setOil = vi.fn().mockRejectedValue(problem('the oil would be thicker at 100 °C'))
    const wrapper = mount(OilPanel, { props: { line, revision: 3, grades: [], family: 'metric', setOil } })
    const field = wrapper.get('[aria-label="Viscosity of point 2"]')
    await field.setValue('5,500')
    await field.trigger('change')
    await flushPromises()
    const sent = setOil.mock.calls.at(-1)![0] as Schemas['OilIn']
    expect(sent.rows!.map((row) => [row.temperature, row.viscosity])).toEqual([['40', '66'], ['212 °F', '5,500']]) // as typed
    expect(setOil.mock.calls.at(-1)![1]).toBe(3)
    expect(wrapper.get('[role="alert"]').text()).toContain('thicker at 100 °C')
    expect((field.element as HTMLInputElement).value).toBe('5,500')
  })
  it('draws the sensing line to the side that moves the regulator, and opens a part by key', async () => {
    const drawn = (details: Record<string, string>) => mount(CircuitDrawing, { props: { details, chosen: 'pump' } })
    const [pump, gallery] = [drawn({}), drawn({ 'engine.regulator_sense': 'gallery', 'engine.stud_bore': '13 mm' })]
    expect(pump.get('[data-sense="line"]').attributes('d')).not.toBe(gallery.get('[data-sense="line"]').attributes('d'))
    expect(pump.get('[data-part="stud"]').text()).toContain('not stated')
    expect(gallery.get('[data-part="stud"]').text()).toContain('13 mm')
    await gallery.get('[data-part="cooler"]').trigger('keydown', { key: 'Enter' })
    expect(gallery.emitted('choose')).toEqual([['cooler']])
  })
  it('tells the leftover of the calibration, and that more than a few per cent is unusual', () => {
    const point = (leftover: number): Schemas['HotPointOut'] => ({
      displaced_l_min: 46, slip_l_min: 5, flow_l_min: 41, bearings_l_min: 30, jets_l_min: 11, jet_diameter_mm: 1.9, bearing_viscosity_mpa_s: 7,
      stated_kpa: 330, computed_kpa: 330 * (1 + leftover / 100), leftover_percent: leftover, studs: [{ bore_mm: 12, differential_pressure_kpa: 23 }],
    })
    const told = (leftover: number) =>
      mount(HotPointPanel, { props: { point: point(leftover), problem: null, missing: [], family: 'metric' } }).get('[data-hot="leftover"]').text()
    expect(told(-2)).toContain('323 kPa for 330 stated: −2.0 %')
    expect(told(-2)).toContain('intended')
    expect(told(-9)).toContain('More than usual')
    expect(mount(HotPointPanel, { props: { point: null, problem: null, missing: ['circuit.engine'], family: 'metric' } }).text()).toContain("the engine's hot point")
  })
  it('takes engines from the library and says why one cannot be saved', async () => {
    const take = vi.fn().mockResolvedValue(undefined)
    const line = (key: string, now: string | null, then: string, is_own: boolean) =>
      ({ key, title: key, part: 'Stud', now_metric: now, now_inch: now, now_typed: null, then_metric: then, then_inch: then, is_own })
    const lines = [line('engine.stud_bore', '14.5 mm', '13 mm', true), line('engine.gallery', null, '330 kPa', false)]
    const preview = vi.fn().mockResolvedValue({ name: 'mine', lines, revision: 7 })
    const wrapper = mount(EngineLibrary, {
      props: {
        engines: [{ id: null, name: 'shipped', metric: 'm', inch: 'i' }, { id: 3, name: 'mine', metric: 'm', inch: 'i' }],
        family: 'metric', preview, take, save: () => Promise.reject(problem('no name yet')), remove: vi.fn(),
      },
    })
    await wrapper.get('[data-engine="mine"]').trigger('click')
    await flushPromises()
    expect(take).not.toHaveBeenCalled()
    expect(wrapper.get('[data-line="engine.stud_bore"]').text()).toContain('14.5 mm')
    take.mockRejectedValueOnce(problem('another window has changed the engine meanwhile'))
    preview.mockResolvedValueOnce({ name: 'mine', lines: [line('engine.gallery', '340 kPa', '330 kPa', true)], revision: 8 })
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(wrapper.get('[role="alert"]').text()).toContain('another window')
    expect(wrapper.get('[data-line="engine.gallery"]').text()).toContain('340 kPa') // as it is now
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(take).toHaveBeenLastCalledWith({ name: 'mine', keep: ['engine.stud_bore', 'engine.gallery'] }, 8)
    await wrapper.get('[data-engine="mine"]').trigger('click')
    await flushPromises()
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(take).toHaveBeenLastCalledWith({ name: 'mine', keep: ['engine.stud_bore'] }, 7)
    expect(wrapper.find('[data-library="lines"]').exists()).toBe(false)
    expect(wrapper.findAll('[aria-label^="Remove "]')).toHaveLength(1)
    await wrapper.get('.tool').trigger('click')
    await flushPromises()
    expect(wrapper.get('[role="alert"]').text()).toBe('no name yet')
  })
})
