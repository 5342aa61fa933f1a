/** The bypass valve in section at three lifts, to scale, in millimetres; y downward, one drawing beside the other. */
import type { Schemas } from '@/api/client'
import { term } from '@/catalogue/catalogue'

type Valve = Schemas['ValveOut']

export interface ValveState {
  name: 'closed' | 'opening' | 'full open'
  lift: number
  /** Pressure at which it stands so. [kPa] */
  kpa: number | null
  /** x of the valve's axis. [mm] */
  axis: number
  /** What holds it shut: the zigzag of a coil spring with its wire where it is cut, a bent blade, or nothing (a flap). */
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
const TYPICAL = { seatInside: 13, land: 0.8, spring: 15, coils: 6, wire: 1.2 }
const MARGIN = 3

/** How the moving part is drawn: a disc on a coil, a disc on a bent blade, or a flap. */
export type ValveKind = 'coil' | 'leaf' | 'flap'

export function valveKind(kind: string | null): ValveKind {
  if (kind && /leaf/.test(kind)) return 'leaf'
  return kind && /flap|combined/.test(kind) ? 'flap' : 'coil'
}

function coiled(axis: number, half: number, top: number, bottom: number, coils: number): { x: number; y: number }[] {
  const turns = Math.min(60, Math.max(2, Math.round(2 * coils))) // no more than can be told apart
  return Array.from({ length: turns + 1 }, (_, i) => ({
    x: axis + (i % 2 ? half : -half),
    y: top + ((bottom - top) * i) / turns,
  }))
}

export function valveFigure(valve: Valve): ValveFigure {
  const [one, other] = [valve.seat_inside_mm, valve.seat_outside_mm]
  const inside = one === null ? (other === null ? TYPICAL.seatInside : other - 2 * TYPICAL.land) : one
  const outside = other ?? inside + 2 * TYPICAL.land
  const [seatInside, seatOutside] = [Math.max(1, Math.min(inside, outside)), Math.max(1.5, inside, outside)]
  const lift = valve.lift_limit_mm ?? (seatInside + seatOutside) / 8
  const disc = seatOutside + 1
  const springWidth = Math.max(2, (valve.spring_outside_mm ?? disc - 1) - (valve.spring_wire_mm ?? TYPICAL.wire))
  const typical = valveKind(valve.kind) === 'coil' ? TYPICAL.spring : lift + 4
  const installed = Math.max(valve.spring_installed_mm ?? typical, lift + 1)
  const width = Math.max(disc, springWidth) + 2 * MARGIN
  const seatY = PLATE_THICKNESS + SEAT_HEIGHT + 3
  const supportY = seatY + DISC_THICKNESS + installed
  const wire = valve.spring_wire_mm ?? TYPICAL.wire
  const kind = valveKind(valve.kind)
  const full = valve.full_open_kpa
  const middle = valve.opening_kpa !== null && full !== null ? (valve.opening_kpa + full) / 2 : null
  const states = (
    [
      ['closed', 0, valve.opening_kpa],
      ['opening', lift / 2, middle],
      ['full open', lift, full],
    ] as const
  ).map(([name, raised, kpa], i) => {
    const axis = width * (i + 0.5) + i * MARGIN
    const top = seatY + raised + DISC_THICKNESS
    const wires =
      kind === 'coil' ? coiled(axis, springWidth / 2, top + wire / 2, supportY - wire / 2, valve.spring_coils ?? TYPICAL.coils) : []
    const [left, right, face] = [axis - disc / 2, axis + disc / 2, seatY + raised]
    const hinge = kind === 'flap' ? seatY : face
    return {
      name,
      lift: raised,
      kpa,
      axis,
      wires,
      spring:
        kind === 'leaf'
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
    guessed: one === null || other === null || valve.spring_installed_mm === null,
    states,
  }
}

/** Return what the comparison of two ways says. */
export function agreementWords(one: Schemas['AgreementOut']): string {
  const pair = `${term('opening_way', one.first)} and ${term('opening_way', one.second)}`
  const error = one.normalised_error === null ? '' : ` (Eₙ ${one.normalised_error.toFixed(one.normalised_error < 9.95 ? 1 : 0)})`
  return `${pair} ${one.agrees ? 'agree' : 'disagree'}${error}`
}

/** Return what all comparisons say together: every pair that disagrees by name, those that agree in one line. */
export function agreementLines(all: readonly Schemas['AgreementOut'][]): { words: string; agrees: boolean }[] {
  const disagreeing = all.filter((one) => !one.agrees)
  const agreeing = all.filter((one) => one.agrees)
  const lines = disagreeing.map((one) => ({ words: agreementWords(one), agrees: false }))
  if (agreeing.length <= 1) return [...lines, ...agreeing.map((one) => ({ words: agreementWords(one), agrees: true }))]
  const largest = Math.max(...agreeing.map((one) => one.normalised_error ?? 0)).toFixed(1)
  const which = disagreeing.length ? 'the other pairs agree' : 'all of them agree'
  return [...lines, { words: `${which} (Eₙ up to ${largest})`, agrees: true }]
}
