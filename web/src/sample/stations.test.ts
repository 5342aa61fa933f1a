import { describe, expect, it } from 'vitest'
import type { Sheet } from './useSheet'
import { mount } from '@vue/test-utils'
import { forgetTyped, useTyped } from '@/shared/useTyped'
import { refusedAt, stageProgress, stationOfKey } from './stations'

describe('stations', () => {
  const field = (key: string, more: object = {}) => ({ key, estimate: null, state: null, ...more })
  const sheet = {
    parts: [
      { key: 'can', stage: 'outside', fields: [field('can.height', { estimate: {} }), field('can.mass2', { state: 'lost' }), field('a')], observations: [{ key: 'can.grip', value: null }] },
      { key: 'media', stage: 'media', fields: [field('media.thickness')], observations: [] },
    ],
  } as unknown as Sheet
  it('take keys to where they are entered', () => {
    expect(stationOfKey('media.thickness', sheet)).toBe('media')
    expect(stationOfKey('can.grip', sheet)).toBe('outside')
    expect(stationOfKey('sample.price', sheet)).toBe('intake')
    expect(stationOfKey('cut', sheet)).toBe('cut')
    expect(stationOfKey('holes.centre_tube[0]', sheet)).toBe('element')
    expect(stationOfKey('media.air_drop', sheet)).toBe('media') // a detail is entered where its part is
    expect(stationOfKey('size_at_beta_75', sheet)).toBe('media')
    expect(stationOfKey('engine.regulator_opening', undefined)).toBe('engine')
    expect(stationOfKey('engine.stud_bore', undefined)).toBe('intake')
    expect(['oil.viscosity', 'plan.start_c', 'scenarios'].map((key) => stationOfKey(key, undefined))).toEqual(['engine', 'start', 'map'])
  })
  it('say where a text stands that was refused, own words and a line of holes among them', () => {
    const setup = () => {
      for (const id of ['3//media.thickness', '3//words/can.grip', '3//add/inlet', '4//can.height']) useTyped(() => id, () => undefined).comeBack(id, 'x', 'no such thing')
      return () => null
    }
    mount({ setup })
    expect(refusedAt(3, sheet)).toEqual(['media', 'outside', 'outside'])
    forgetTyped()
  })
  it('fill by what is answered, a state being an answer', () => {
    expect(stageProgress(sheet, 'outside')).toEqual({ fill: 0.5, progress: '2 of 4' })
  })
})
