/** The axes of ASTM D341, on which an oil is a straight line between neighbouring points. Numbers in, places out. */
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
  const [x0, x1, y0, y1] = [across(coldest), across(hottest), up(thin), up(thick)]
  return {
    x: (celsius) => left + ((right - left) * (across(celsius) - x0)) / (x1 - x0),
    y: (kinematic) => bottom + ((top - bottom) * (up(kinematic) - y0)) / (y1 - y0),
    celsiusAt: (x) => 10 ** (x0 + ((x - left) / (right - left)) * (x1 - x0)) - KELVIN,
    kinematicAt: (y) => 10 ** (10 ** (y0 + ((y - bottom) / (top - bottom)) * (y1 - y0))) - OFFSET,
  }
}

export const VISCOSITY_TICKS = [3, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000, 50000] as const
