import { describe, expect, it } from 'vitest'
import { placeOf, queryOf, type LinkedPlace } from './mapLink'
import { USUAL_SIZE_UM } from './useOperatingMap'

const place: LinkedPlace = {
  temperature: -18.5,
  speed: 2500,
  flow: 20,
  condition: 'filling',
  quantity: 'unfiltered_fraction',
  kind: 'engine',
  size: USUAL_SIZE_UM,
  draft: { name: 'clogged', loading: 3 } as LinkedPlace['draft'],
}
const quantities = ['element_pressure', 'unfiltered_fraction']

describe('a link to the map', () => {
  it('says the same place again', () => {
    const { temperature, speed, condition, quantity, draft } = place
    expect(placeOf(queryOf(place), quantities)).toEqual({ temperature, speed, condition, quantity, draft })
    const alone = { ...place, kind: 'alone' as const, size: 9 }
    expect(placeOf(queryOf(alone), quantities)).toEqual({ temperature, speed, condition, quantity, draft, kind: 'alone', flow: 20, size: 9 })
  })
  it.each([
    [{ at: 'nowhere' }],
    [{ at: '900,2000', condition: 'boiling', quantity: 'colour', size: '-1' }],
    [{ scenario: '{"name": 1}' }],
    [{ scenario: '[1]' }],
    [{ scenario: '{' }],
  ])('leaves out what it says wrongly: %o', (query) => {
    expect(placeOf(query, quantities)).not.toHaveProperty('draft')
    expect(placeOf(query, quantities)).not.toHaveProperty('temperature')
    expect(placeOf(query, quantities)).not.toHaveProperty('condition')
  })
})
