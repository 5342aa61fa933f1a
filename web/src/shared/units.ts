/** How results are shown in each unit family; what was typed is never changed. */
export type UnitFamily = 'metric' | 'inch'

export interface ShownUnit {
  symbol: string
  /** Multiply a number in the wire's unit by it. */
  factor: number
}

const SHOWN: Record<string, Record<UnitFamily, ShownUnit>> = {
  mm2: { metric: { symbol: 'mm²', factor: 1 }, inch: { symbol: 'in²', factor: 1 / 645.16 } },
  cm2: { metric: { symbol: 'cm²', factor: 1 }, inch: { symbol: 'in²', factor: 1 / 6.4516 } },
  kpa: { metric: { symbol: 'kPa', factor: 1 }, inch: { symbol: 'psi', factor: 1 / 6.894757293168 } },
  mm: { metric: { symbol: 'mm', factor: 1 }, inch: { symbol: 'in', factor: 1 / 25.4 } },
  l_min: { metric: { symbol: 'L/min', factor: 1 }, inch: { symbol: 'US gal/min', factor: 1 / 3.785411784 } },
  percent: { metric: { symbol: '%', factor: 1 }, inch: { symbol: '%', factor: 1 } },
}

/** Return symbol and factor of a wire unit such as `kpa` in a family. */
export function shownUnit(wire: string, family: UnitFamily): ShownUnit {
  const unit = SHOWN[wire]
  if (!unit) throw new Error(`no shown unit for ${wire}`)
  return unit[family]
}
