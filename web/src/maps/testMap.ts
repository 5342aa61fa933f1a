/** A map of two places, one of them a gap, for the tests beside it. */
import type { OperatingMap } from './useOperatingMap'

export function map(change: Partial<OperatingMap> = {}): OperatingMap {
  const grid = [[4, null]]
  const part = (name: string, total: number | null) => ({
    name, viscous_kpa: [[total, null]], inertial_kpa: [[0, null]], spring_kpa: null,
  })
  return {
    temperature_c: [20], speed_rpm: [1000, 2000], element_kpa: grid, loss_breakdown: [part('cooler', 90), part('media', 6), part('outlet', 4)],
    onset: { speed_rpm: [1000, 2000], temperature_c: [-12.34, 150], reopens_c: [null, null] },
    regulator: { speed_rpm: [1000, 2000], temperature_c: [null, null], reopens_c: [null, null] },
    ...change,
  } as OperatingMap
}
