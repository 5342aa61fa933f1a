/** The axes of ASTM D341, on which an oil is a straight line between neighbouring points. Numbers in, places out. */
import { scaleLinear } from 'd3-scale'

const KELVIN = 273.15
const OFFSET = 0.7

export interface OilScale {
  x: (celsius: number) => number
  y: (kinematic: number) => number
  celsiusAt: (x: number) => number
  kinematicAt: (y: number) => number
}

const across = (celsius: number) => Math.log10(celsius + KELVIN)
const up = (kinematic: number) => Math.log10(Math.log10(kinematic + OFFSET))

/** Return the scale of a chart between two temperatures and two viscosities. */
export function oilScale(
  [coldest, hottest]: readonly [number, number],
  [thin, thick]: readonly [number, number],
  [left, right, top, bottom]: readonly [number, number, number, number],
): OilScale {
  const x = scaleLinear([across(coldest), across(hottest)], [left, right])
  const y = scaleLinear([up(thin), up(thick)], [bottom, top])
  return {
    x: (celsius) => x(across(celsius)),
    y: (kinematic) => y(up(kinematic)),
    celsiusAt: (place) => 10 ** x.invert(place) - KELVIN,
    kinematicAt: (place) => 10 ** (10 ** y.invert(place)) - OFFSET,
  }
}

export const VISCOSITY_TICKS = [3, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000, 50000] as const
