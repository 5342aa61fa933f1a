/** The bypass valve in section at three lifts, to scale, in millimetres; y downward, one drawing beside the other. */
import type { Schemas } from '@/api/client'

type Valve = Schemas['ValveOut']

export interface ValveState {
  name: 'closed' | 'opening' | 'full open'
  lift: number
  /** Pressure at which it stands so. [kPa] */
  kpa: number | null
  /** x of the valve's axis. [mm] */
  axis: number
  /** The spring's zigzag between disc and support. */
  spring: string
}

export interface ValveFigure {
  seatInside: number
  seatOutside: number
  disc: number
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

function zigzag(axis: number, half: number, top: number, bottom: number, coils: number): string {
  const turns = Math.max(2, Math.round(2 * coils))
  const points = Array.from({ length: turns + 1 }, (_, i) => {
    const x = axis + (i % 2 ? half : -half)
    return `${x.toFixed(2)} ${(top + ((bottom - top) * i) / turns).toFixed(2)}`
  })
  return `M${points.join('L')}`
}

export function valveFigure(valve: Valve): ValveFigure {
  const [one, other] = [valve.seat_inside_mm, valve.seat_outside_mm]
  const inside = one === null ? (other === null ? TYPICAL.seatInside : other - 2 * TYPICAL.land) : one
  const outside = other ?? inside + 2 * TYPICAL.land
  const [seatInside, seatOutside] = [Math.max(1, Math.min(inside, outside)), Math.max(1.5, inside, outside)]
  const lift = valve.lift_limit_mm ?? (seatInside + seatOutside) / 8
  const disc = seatOutside + 1
  const springWidth = Math.max(2, (valve.spring_outside_mm ?? disc - 1) - (valve.spring_wire_mm ?? TYPICAL.wire))
  const installed = Math.max(valve.spring_installed_mm ?? TYPICAL.spring, lift + 1)
  const width = Math.max(disc, springWidth) + 2 * MARGIN
  const seatY = PLATE_THICKNESS + SEAT_HEIGHT + 3
  const supportY = seatY + DISC_THICKNESS + installed
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
    return { name, lift: raised, kpa, axis, spring: zigzag(axis, springWidth / 2, top, supportY, valve.spring_coils ?? TYPICAL.coils) }
  })
  return {
    seatInside,
    seatOutside,
    disc,
    plate: width,
    seatY,
    supportY,
    width: 3 * width + 2 * MARGIN,
    height: supportY + 2,
    wire: valve.spring_wire_mm ?? TYPICAL.wire,
    guessed: one === null || other === null || valve.spring_installed_mm === null,
    states,
  }
}

const BASIS_NAMES: Record<string, string> = {
  pressure: 'bench pressure',
  force: 'push-off force',
  spring: 'spring dimensions',
  stated: 'stated setting',
  full_open: 'full-open pressure',
}

export function basisName(basis: string): string {
  return BASIS_NAMES[basis] ?? basis
}

/** Return what the comparison of two ways says. */
export function agreementWords(one: Schemas['AgreementOut']): string {
  const pair = `${basisName(one.first)} and ${basisName(one.second)}`
  const error = one.normalised_error === null ? '' : ` (Eₙ ${one.normalised_error.toFixed(one.normalised_error < 9.95 ? 1 : 0)})`
  return `${pair} ${one.agrees ? 'agree' : 'disagree'}${error}`
}
