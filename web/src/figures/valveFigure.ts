/** The bypass valve in section at three lifts, to scale, in millimetres; y downward, one drawing beside the other. */
import type { Schemas } from '@/api/client'
import { term } from '@/catalogue/catalogue'

type Valve = Schemas['ValveOut']

export interface ValveState {
  name: 'closed' | 'opening' | 'full open'
  lift: number
  /** Pressure at which it is there. [kPa] */
  kpa: number | null
  /** x of the valve's axis. [mm] */
  axis: number
  /** Spring that holds it shut: the zigzag of a coil spring with its wire where it is cut, a bent blade, or nothing (a flap). */
  spring: string
  wires: { x: number; y: number }[]
  /** Corners of the disc, or of the flap that bends away from its left edge. */
  disc: string
}

export interface ValveFigure {
  seatInside: number
  seatOutside: number
  discWidth: number
  plate: number
  /** y of the seat's face, of the disc's underside when closed, of the support. [mm] */
  seatY: number
  supportY: number
  width: number
  height: number
  wire: number
  /** Typical sizes stand in for what was not measured. */
  guessed: boolean
  states: ValveState[]
}

export const PLATE_THICKNESS = 1.2
export const SEAT_HEIGHT = 1
export const DISC_THICKNESS = 2
const MARGIN = 3

function coiled(axis: number, half: number, top: number, bottom: number, coils: number): { x: number; y: number }[] {
  const turns = Math.min(60, Math.max(2, Math.round(2 * coils))) // no more than can be told apart
  return Array.from({ length: turns + 1 }, (_, i) => ({
    x: axis + (i % 2 ? half : -half),
    y: top + ((bottom - top) * i) / turns,
  }))
}

export function valveFigure(valve: Valve): ValveFigure {
  const { sizes } = valve
  const [seatInside, seatOutside, disc, lift] = [sizes.seat_inside_mm, sizes.seat_outside_mm, sizes.disc_mm, sizes.lift_mm]
  const width = Math.max(disc, sizes.spring_width_mm) + 2 * MARGIN
  const seatY = PLATE_THICKNESS + SEAT_HEIGHT + 3
  const supportY = seatY + DISC_THICKNESS + sizes.spring_length_mm
  const { form, wire_mm: wire } = sizes
  const states = (
    [
      ['closed', 0, valve.opening_kpa],
      ['opening', lift / 2, valve.sizes.half_open_pressure_kpa],
      ['full open', lift, valve.full_open_kpa],
    ] as const
  ).map(([name, raised, kpa], i) => {
    const axis = width * (i + 0.5) + i * MARGIN
    const top = seatY + raised + DISC_THICKNESS
    const wires =
      form === 'coil' ? coiled(axis, sizes.spring_width_mm / 2, top + wire / 2, supportY - wire / 2, sizes.coils) : []
    const [left, right, face] = [axis - disc / 2, axis + disc / 2, seatY + raised]
    const hinge = form === 'flap' ? seatY : face
    return {
      name,
      lift: raised,
      kpa,
      axis,
      wires,
      spring:
        form === 'leaf'
          ? `M${left} ${supportY}Q${axis} ${2 * top - supportY} ${right} ${supportY}`
          : wires.length
            ? `M${wires.map(({ x, y }) => `${x.toFixed(2)} ${y.toFixed(2)}`).join('L')}`
            : '',
      disc: `M${left} ${hinge}L${right} ${face}V${face + DISC_THICKNESS}L${left} ${hinge + DISC_THICKNESS}Z`,
    }
  })
  return {
    seatInside,
    seatOutside,
    discWidth: disc,
    plate: width,
    seatY,
    supportY,
    width: 3 * width + 2 * MARGIN,
    height: supportY + 2,
    wire,
    guessed: sizes.is_typical,
    states,
  }
}

/** Return what the comparison of two ways says. */
export function agreementWords(comparison: Schemas['AgreementOut']): string {
  const pair = `${term('opening_way', comparison.first)} and ${term('opening_way', comparison.second)}`
  const error = comparison.normalised_error === null ? '' : ` (Eₙ ${comparison.normalised_error.toFixed(comparison.normalised_error < 9.95 ? 1 : 0)})`
  return `${pair} ${comparison.agrees ? 'agree' : 'disagree'}${error}${comparison.reservation ? `, but ${comparison.reservation}` : ''}`
}

/** Return what all comparisons say together: every pair that disagrees by name, those that agree in one line. */
export function agreementLines(all: readonly Schemas['AgreementOut'][]): { words: string; agrees: boolean }[] {
  const disagreeing = all.filter((item) => !item.agrees)
  const agreeing = all.filter((item) => item.agrees)
  const lines = disagreeing.map((item) => ({ words: agreementWords(item), agrees: false }))
  if (agreeing.length <= 1) return [...lines, ...agreeing.map((item) => ({ words: agreementWords(item), agrees: true }))]
  const largest = Math.max(...agreeing.map((item) => item.normalised_error ?? 0)).toFixed(1)
  const which = disagreeing.length ? 'the other pairs agree' : 'all of them agree'
  const reservation = agreeing.find((item) => item.reservation)?.reservation
  return [...lines, { words: `${which} (Eₙ up to ${largest})${reservation ? `, but ${reservation}` : ''}`, agrees: true }]
}
