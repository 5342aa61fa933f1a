import { describe, expect, it } from 'vitest'
import { mount } from '@vue/test-utils'
import type { Schemas } from '@/api/client'
import { bandPath, upScale, valuePath } from '@/shared/bandChart'
import { oilScale } from '@/circuit/oilScale'
import WhatIfPanel from '@/maps/WhatIfPanel.vue'
import { jsonLines } from '@/comparison/useSlices'
import { assumptionBand, onsetWords, sensitivitySentence, sourceCounts } from '@/maps/assumptions'
import { CIRCUIT_PARTS, partOfFact } from '@/circuit/circuitParts'
import { isChanged, typedHoles, typedNumber } from '@/maps/scenario'
import { stationOfKey } from '@/study/stations'

describe('the axes of the oil', () => {
  const scale = oilScale([-40, 140], [3, 50000], [40, 500, 10, 270])
  it('make a straight line of an oil that follows ASTM D341', () => {
    // two points of an oil, and a third on the line by the standard's own equation
    const W = (nu: number) => Math.log10(Math.log10(nu + 0.7))
    const T = (c: number) => Math.log10(c + 273.15)
    const slope = (W(11) - W(66)) / (T(100) - T(40))
    const at70 = 10 ** (10 ** (W(66) + slope * (T(70) - T(40)))) - 0.7
    const [a, b, c] = [[40, 66], [70, at70], [100, 11]].map(([t, nu]) => [scale.x(t!), scale.y(nu!)])
    expect((b![1]! - a![1]!) / (b![0]! - a![0]!)).toBeCloseTo((c![1]! - a![1]!) / (c![0]! - a![0]!), 9)
  })
  it('lead back from a place to temperature and viscosity', () => {
    expect(scale.celsiusAt(scale.x(-25))).toBeCloseTo(-25, 9)
    expect(scale.kinematicAt(scale.y(412))).toBeCloseTo(412, 6)
  })
})

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

const assumption = (name: string, change: number, low: number | null, high: number | null): Schemas['AssumptionOut'] => ({
  name, value: 1, low: 0.5, high: 2, is_factor: true, mean_change_percent: change, onset_low_c: low, onset_high_c: high,
})

describe('what a map rests on', () => {
  it('names the two strongest assumptions with their bands, as they were computed', () => {
    const resting = { inputs: [], assumptions: [assumption('model.permeability', 28.4, -30, -20), assumption('model.pump', 1.4, -25, -24.99), assumption('model.hole_loss', 0, null, null)] }
    expect(sensitivitySentence(resting, 'Element Δp')).toBe(
      'Element Δp moves most with the permeability of the media (×/÷ 2.00: 28 %), then with the pump displacement (×/÷ 2.00: 1.4 %).',
    )
    expect(sensitivitySentence({ inputs: [], assumptions: [] }, 'x')).toBe('No assumption moves it.')
  })
  it('tells a valve that is moved from one that stays shut', () => {
    expect(onsetWords(assumption('a', 1, -30, -20))).toBe('bypass onset −30 to −20 °C')
    expect(onsetWords(assumption('a', 1, null, -20))).toContain('from shut to −20')
    expect(onsetWords(assumption('a', 1, null, null))).toBe('bypass stays shut')
    expect(assumptionBand({ ...assumption('model.cold_viscosity', 1, null, null), is_factor: false, low: 1 })).toBe('× 1.0 to 2.0')
  })
  it('counts the inputs by where they come from', () => {
    const inputs = [{ key: 'a', provenance: 'assumed' }, { key: 'b', provenance: 'measured' }, { key: 'c', provenance: 'assumed' }]
    expect(sourceCounts(inputs).map((one) => [one.provenance, one.keys.length])).toEqual([['measured', 1], ['assumed', 2]])
  })
})

describe('slices', () => {
  it('read a stream line by line however it is cut', async () => {
    const bytes = new TextEncoder().encode('{"line":{"kind":"progress","key":"1","done":1,"total":2}}\n{"line":{"kind":"problem","key":"2-0","message":"°","missing":[]}}\n')
    const body = new ReadableStream<Uint8Array>({
      start(controller) {
        for (let i = 0; i < bytes.length; i += 7) controller.enqueue(bytes.slice(i, i + 7))
        controller.close()
      },
    })
    const found = []
    for await (const { line } of jsonLines(body)) found.push(line.kind)
    expect(found).toEqual(['progress', 'problem'])
  })
  it('draw a band only where there is one, on a scale that holds all of it', () => {
    const band = { along: [0, 1, 2], value: [1, 10, null], low: [0.5, 5, null], high: [2, 20, null] }
    const scale = upScale([band], true, 100, 0)
    expect(scale.at(0.5)).toBeLessThanOrEqual(100)
    expect(scale.at(20)).toBeGreaterThanOrEqual(0)
    expect(valuePath(band.along, band.value, (x) => x, scale).match(/[ML]/g)).toHaveLength(2)
    expect(bandPath(band, (x) => x, scale)).not.toContain('NaN')
    expect(upScale([{ ...band, value: [-5, 0, 5] }], false, 100, 0).at(-5)).toBeLessThanOrEqual(100)
  })
})

describe('the engine', () => {
  it('has every fact of its drawing at one part, and each leads to its station', () => {
    const keys = CIRCUIT_PARTS.flatMap((part) => part.facts)
    expect(new Set(keys).size).toBe(keys.length)
    expect(partOfFact('engine.regulator_opening')).toBe('regulator')
    expect(stationOfKey('engine.regulator_opening', undefined)).toBe('engine')
    expect(stationOfKey('engine.stud_bore', undefined)).toBe('intake')
    expect([stationOfKey('oil.viscosity', undefined), stationOfKey('plan.start_c', undefined), stationOfKey('scenarios', undefined)]).toEqual(['engine', 'start', 'map'])
  })
})
