import { mount, flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { ProblemError, type Schemas } from '@/api/client'
import DutyCycleField from './DutyCycleField.vue'
import LifeTable from './LifeTable.vue'
import StartTotals from './StartTotals.vue'

const titles = new Map([['media.thickness', 'Media: thickness']])
const problem = (message: string) => new ProblemError({ detail: message, where: '', missing: [] })

const start: Schemas['WarmUpTotalsOut'] = {
  filled_after_s: 4, pressure_after_s: null, bypass_minutes: 0.1, unfiltered_l: 0.4, volume_l: 800, lowest_gallery_kpa: 160, dry_s: 0,
}
describe('starts and lives', () => {
  const life: Schemas['LifeOut'] = {
    speed_rpm: 2640, capacity: { mass_g: 15, basis: 'family', is_least: false, corrected_by: '' }, factor: 3.1,
    rows: [
      { temperature_c: -20, is_cold_start: true, steady_loading: 1, steady_time_hours: 0, filling_time_hours: 0, never_steady: false, never_filling: false, steady_is_least: false, filling_is_least: false },
      { temperature_c: 95, is_cold_start: false, steady_loading: null, steady_time_hours: null, filling_time_hours: 400, never_steady: true, never_filling: false, steady_is_least: false, filling_is_least: false },
    ],
    clean_up: [
      { size_um: 10, half_life_min: null, low_min: null, high_min: 90.3 },
      { size_um: 20, half_life_min: 0.21, low_min: 0.2, high_min: 0.4 },
    ],
  }
  const one: Schemas['StartOut'] = { sample_id: 1, label: 'A', totals: { ...start, dry_s: 12 }, trace: null, lives: [life, { ...life, speed_rpm: 3370 }], reaching: [], end_of_service: null, problem: null, missing: [] }
  it('say never, and warn where the oil does not pump', () => {
    const wrapper = mount(StartTotals, { props: { starts: [one], inHand: 1, family: 'inch', titles } })
    expect(wrapper.get('[data-start="A"]').text()).toContain('never')
    expect(wrapper.get('[data-start="dry"]').text()).toContain('does not pump for 12.0 s')
    expect(wrapper.text()).toContain('lowest gallery, psi')
    expect(wrapper.text()).toContain('State the hours of a change interval')
  })
  it('put the end of service beside the new filter', () => {
    const end = { hours: 300, captured_g: 24, loading: 4.2, is_least: false, totals: { ...start, bypass_minutes: 3 }, onset_c: -4.6, onset_new_c: -25 }
    const wrapper = mount(StartTotals, { props: { starts: [{ ...one, end_of_service: end }], inHand: 1, family: 'metric', titles } })
    const cells = wrapper.findAll('[data-ended="A"] td').map((cell) => cell.text())
    expect(cells).toEqual(['1 A', '300', '24', '× 4.2', '−25 → −5', '6.0 s → 3.0 min', '0.40 → 0.40'])
    const stuck = mount(StartTotals, { props: { starts: [{ ...one, end_of_service: { ...end, onset_c: 150 } }], inHand: 1, family: 'metric', titles } })
    expect(stuck.get('[data-ended="A"]').text()).toContain('−25 → never closes')
  })
  it('tell open from new from never', () => {
    const wrapper = mount(LifeTable, { props: { starts: [one], warm: 95, family: 'metric', inHand: 1, speeds: [{ share_percent: 50, speed_rpm: 2640 }, { share_percent: 90, speed_rpm: 3370 }] } })
    const cells = wrapper.findAll('[data-life="A"] td').map((cell) => cell.text())
    expect(cells).toEqual(['1 A', '2640 rpm', 'new (new)', 'never (400)', '3370 rpm', 'new (new)', 'never (400)'])
    expect(wrapper.get('[data-life="speeds"]').text()).toContain('2640 rpm (median) and 3370 rpm (90 %)')
    expect(wrapper.get('[data-clean="A"]').text()).toContain('≤ 91')
    expect(wrapper.get('[data-clean="A"]').text()).toContain('0.21 (0.20 to 0.40)')
    expect(wrapper.text()).toContain('A holds 15 g (assumed)')
    expect(wrapper.text()).toContain('good to a factor of 3.1 either way')
  })
  it('keep a bad duty cycle out with its reason', async () => {
    const read = vi.fn().mockRejectedValue(problem('line 4 goes back in time'))
    const choose = vi.fn().mockResolvedValue(undefined)
    const wrapper = mount(DutyCycleField, { props: { chosen: 'a', cycles: ['a', 'b'], choose, read } })
    const input = wrapper.get('input').element as HTMLInputElement
    Object.defineProperty(input, 'files', { value: [new File(['x'], 'log.csv')] })
    await wrapper.get('input').trigger('change')
    await flushPromises()
    expect(read).toHaveBeenCalledWith('log', 'x')
    expect(choose).not.toHaveBeenCalled()
    expect(wrapper.get('[role="alert"]').text()).toContain('goes back in time')
  })
})
