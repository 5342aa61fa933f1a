import { mount, flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { ProblemError, type Schemas } from '@/api/client'
import CircuitDrawing from '@/circuit/CircuitDrawing.vue'
import DutyCycleField from '@/starts/DutyCycleField.vue'
import EngineLibrary from '@/circuit/EngineLibrary.vue'
import FlowSplitPanel from '@/maps/FlowSplitPanel.vue'
import HotPointPanel from '@/circuit/HotPointPanel.vue'
import LedgerBars from '@/maps/LedgerBars.vue'
import LifeTable from '@/starts/LifeTable.vue'
import OilPanel from '@/circuit/OilPanel.vue'
import SidesTable from '@/comparison/SidesTable.vue'
import StaircasePanel from '@/maps/StaircasePanel.vue'
import StartTotals from '@/starts/StartTotals.vue'
import type { LedgerRow } from '@/maps/ledger'

const titles = new Map([['media.thickness', 'Media: thickness']])
const problem = (message: string) => new ProblemError({ message, where: '', missing: [] })

const row = (name: string, viscous: number, inertial: number): LedgerRow => ({
  name, title: name, viscous, inertial, spring: 0, total: viscous + inertial, share: (viscous + inertial) / 100,
})

describe('the ledger', () => {
  it('draws each part against the longest bar of now and before', () => {
    const wrapper = mount(LedgerBars, {
      props: { rows: [row('media', 40, 0), row('outlet', 5, 5)], unchanged: [row('media', 80, 0)], sentence: 'said', family: 'metric' },
    })
    const media = wrapper.get('[data-part="media"]')
    expect(media.get('.viscous').attributes('style')).toContain('width: 50%')
    expect(media.get('i.was').attributes('style')).toContain('left: 100%')
    expect(wrapper.get('[data-part="outlet"] .inertial').attributes('style')).toContain('width: 6.25%')
    expect(wrapper.find('[data-part="outlet"] i.was').exists()).toBe(false)
  })
})

describe('the staircase', () => {
  const props = {
    steps: [{ name: 'cooler', title: 'Oil cooler', from: 500, to: 400 }, { name: 'media', title: 'Media', from: 400, to: 300 }],
    pump: 500, inlet: 400, gallery: 300, gauge: 'filter_inlet' as const, unchanged: null, family: 'metric' as const,
  }
  it('shows what a gauge before and after the filter shows, and what the engine gets', () => {
    const wrapper = mount(StaircasePanel, { props })
    const told = (name: string) => wrapper.get(`[data-gauge="${name}"]`).text()
    expect([told('before'), told('after'), told('engine')]).toEqual(['400', '300', '300'])
    expect(wrapper.get('[data-figure="staircase"]').attributes('aria-label')).toContain('oil cooler 100, media 100')
    expect(mount(StaircasePanel, { props: { ...props, family: 'inch' } }).get('[data-gauge="before"]').text()).toBe('58.0')
  })
  it('tells that a gauge before a clogged filter rises while the engine gets less', () => {
    const wrapper = mount(StaircasePanel, { props: { ...props, unchanged: { pump: 490, inlet: 380, gallery: 320 } } })
    expect(wrapper.text()).toContain('a gauge before it rises by 20, one after it falls by 20 kPa')
  })
})

describe('the flow split', () => {
  it('gives flow and share of media, bypass and defects', () => {
    const wrapper = mount(FlowSplitPanel, { props: { section: null, flow: 10, bypass: 0.25, defects: 0.05, family: 'metric' } })
    const told = (name: string) => wrapper.get(`[data-flow="${name}"]`).text()
    expect(told('media')).toContain('7.00 L/min')
    expect(told('bypass')).toContain('25 %')
    expect(told('defects')).toContain('5.0 %')
    expect(mount(FlowSplitPanel, { props: { section: null, flow: null, bypass: 0, defects: 0, family: 'metric' } }).text()).toContain('will not pump')
  })
})

const start: Schemas['WarmUpTotalsOut'] = {
  filled_after_s: 4, pressure_after_s: null, bypass_minutes: 0.1, unfiltered_l: 0.4, volume_l: 800, lowest_gallery_kpa: 160, dry_s: 0,
}
const side = (change: Partial<Schemas['SideOut']>): Schemas['SideOut'] => ({
  key: '1', sample_id: 1, label: 'A', parts: [{ name: 'media', loss_kpa: 50, share_percent: 72.4 }, { name: 'inlet_holes', loss_kpa: 11, share_percent: 16 }],
  filter_kpa: 70, gallery_kpa: 300, unfiltered_percent: 0, onset_c: -4.4, filling_onset_c: 17.6, has_valve: true, start, problem: null, missing: [], ...change,
})
const band = (change: Partial<Schemas['SliceBandOut']>): Schemas['SliceBandOut'] => ({
  kind: 'band', key: '1', along: [], value: [], low: [], middle: [], high: [], unit: 'kpa', draws: 1000, impossible: 0, onset_c: -4.4, onset_low_c: -21.3,
  onset_high_c: 14.6, shut_percent: 0, ...change,
})

describe('filters side by side', () => {
  const table = (sides: Schemas['SideOut'][], bands: Record<string, Schemas['SliceBandOut']> = {}) =>
    mount(SidesTable, {
      props: {
        sides: { temperature_c: -20, speed_rpm: 1500, start_c: -25, duty_cycle: 'x', sides }, bands, inHand: 1, shown: ['1'], who: 'filter', titles, family: 'metric',
      },
    })
  it('answer which part restricts, below what temperature, and for how long', () => {
    const wrapper = table([side({})], { 1: band({}) })
    expect(wrapper.get('[data-answer="restricts"]').text()).toContain('Media 72 % inlet holes 16 %')
    expect(wrapper.get('[data-answer="onset"]').text()).toBe('−4 °C −21 … 15 °C')
    expect(wrapper.get('[data-answer="start"]').text()).toBe('6 s')
  })
  it('tell shut from never closing, and an interval that begins shut', () => {
    const onset = (change: Partial<Schemas['SideOut']>, found?: Schemas['SliceBandOut']) =>
      table([side(change)], found ? { 1: found } : {}).get('[data-answer="onset"]').text()
    expect(onset({ onset_c: null })).toBe('shut')
    expect(onset({ onset_c: 150 })).toBe('never closes')
    expect(onset({ onset_c: -0.2 })).toBe('0 °C')
    expect(onset({ has_valve: false })).toBe('no bypass')
    expect(onset({ onset_c: null }, band({ onset_low_c: null, onset_high_c: -19, shut_percent: 60 }))).toBe('shut shut … −19 °C')
    expect(onset({ onset_c: null }, band({ shut_percent: 99 }))).toContain('shut in nearly all draws')
  })
  it('say in words what one still needs', async () => {
    const wrapper = table([side({ problem: 'still missing: media.thickness', missing: ['media.thickness', 'b', 'c', 'd', 'e'] })])
    expect(wrapper.text()).toContain('needs Media: thickness, b, c, d and 1 more')
    await wrapper.get('input').trigger('change')
    expect(wrapper.emitted('toggle')).toEqual([['1']])
  })
})

describe('starts and lives', () => {
  const life: Schemas['LifeOut'] = {
    capacity_g: 15, capacity_assumed: true,
    rows: [
      { temperature_c: -20, is_cold_start: true, steady_loading: 1, steady_hours: 0, filling_hours: 0, never_steady: false, never_filling: false },
      { temperature_c: 95, is_cold_start: false, steady_loading: null, steady_hours: null, filling_hours: 400, never_steady: true, never_filling: false },
    ],
    clean_up: [{ size_um: 20, efficiency_percent: 89, minutes: 0.21 }],
  }
  const one: Schemas['StartOut'] = { sample_id: 1, label: 'A', totals: { ...start, dry_s: 12 }, trace: null, life, problem: null, missing: [] }
  it('say never, and warn where the oil does not pump', () => {
    const wrapper = mount(StartTotals, { props: { starts: [one], inHand: 1, family: 'inch', titles } })
    expect(wrapper.get('[data-start="A"]').text()).toContain('never')
    expect(wrapper.get('[data-start="dry"]').text()).toContain('does not pump for 12 s')
    expect(wrapper.text()).toContain('lowest gallery, psi')
  })
  it('tell open from new from never', () => {
    const wrapper = mount(LifeTable, { props: { starts: [one], warm: 95, speed: 1500, inHand: 1 } })
    const cells = wrapper.findAll('[data-life="A"] td').map((cell) => cell.text())
    expect(cells.slice(1)).toEqual(['new (new)', 'never (400)'])
    expect(wrapper.get('[data-clean="A"]').text()).toContain('0.21')
    expect(wrapper.text()).toContain('A holds 15 g (assumed)')
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

describe('oil and engine', () => {
  const line: Schemas['OilLineOut'] = {
    temperature_c: [-25, 15, 40, 100], kinematic_mm2_s: [4000, 260, 66, 11], dynamic_mpa_s: [3500, 222, 55, 9], density_kg_m3: [879, 854, 838, 800],
    points: [
      { temperature_c: 40, stated: 66, kinematic_mm2_s: 66, dynamic_mpa_s: 55, is_dynamic: false, high_shear: false },
      { temperature_c: 100, stated: 11, kinematic_mm2_s: 11, dynamic_mpa_s: 9, is_dynamic: false, high_shear: false },
    ],
    coldest_point_c: 40, warmest_point_c: 100, coldest_pumping_c: -30,
  }
  it('reads both viscosities off the line and marks where it is only extended', async () => {
    const wrapper = mount(OilPanel, { props: { line, grades: ['5W-30'], setOil: () => Promise.resolve() } })
    expect(wrapper.get('[data-oil="reading"]').text()).toContain('3500 mPa·s dynamic · 4000 mm²/s kinematic')
    expect(wrapper.get('[data-oil="reading"]').text()).toContain('extended beyond the points')
    await wrapper.get('.read input').setValue('40')
    await wrapper.get('.read input').trigger('change')
    expect(wrapper.get('[data-oil="reading"]').text()).not.toContain('extended')
  })
  it('hands the points over as they were stated, with those that were seen, and keeps what is refused', async () => {
    const setOil = vi.fn().mockRejectedValue(problem('the oil would be thicker at 100 °C'))
    const wrapper = mount(OilPanel, { props: { line, grades: [], setOil } })
    const field = wrapper.get('[aria-label="Viscosity of point 2"]')
    await field.setValue('90')
    await field.trigger('change')
    await flushPromises()
    const sent = setOil.mock.calls.at(-1)![0] as Schemas['OilIn']
    expect(sent.viscosity!.map((point) => point.kinematic_mm2_s)).toEqual([66, 90])
    expect(sent.seen!.map((point) => point.kinematic_mm2_s)).toEqual([66, 11])
    expect(wrapper.get('[role="alert"]').text()).toContain('thicker at 100 °C')
    expect((field.element as HTMLInputElement).value).toBe('90')
  })
  it('draws the sensing line to the side that moves the regulator, and opens a part by key', async () => {
    const drawn = (facts: Record<string, string>) => mount(CircuitDrawing, { props: { facts, chosen: 'pump' } })
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
      stated_kpa: 330, computed_kpa: 330 * (1 + leftover / 100), leftover_percent: leftover, studs: [{ bore_mm: 12, loss_kpa: 23 }],
    })
    const told = (leftover: number) =>
      mount(HotPointPanel, { props: { point: point(leftover), problem: null, missing: [], family: 'metric' } }).get('[data-hot="leftover"]').text()
    expect(told(-2)).toContain('323 kPa for 330 stated: −2.0 %')
    expect(told(-2)).toContain('intended')
    expect(told(-9)).toContain('More than usual')
    expect(mount(HotPointPanel, { props: { point: null, problem: null, missing: ['circuit.engine'], family: 'metric' } }).text()).toContain("the engine's hot point")
  })
  it('takes engines from the library and says why one cannot be kept', async () => {
    const take = vi.fn().mockResolvedValue(undefined)
    const wrapper = mount(EngineLibrary, {
      props: { engines: [{ id: null, name: 'shipped', words: 'w' }, { id: 3, name: 'mine', words: 'w' }], take, keep: () => Promise.reject(problem('no name yet')), forget: vi.fn() },
    })
    await wrapper.get('[data-engine="mine"]').trigger('click')
    expect(take).toHaveBeenCalledWith('mine')
    expect(wrapper.findAll('[aria-label^="Take "]')).toHaveLength(1)
    await wrapper.get('.tool').trigger('click')
    await flushPromises()
    expect(wrapper.get('[role="alert"]').text()).toBe('no name yet')
  })
})
