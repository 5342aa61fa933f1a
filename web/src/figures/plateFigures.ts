/** The figures beside the plate, as words and discs. */
import type { Schemas } from '@/api/client'
import { significant } from '@/shared/numbers'
import { shownUnit, type UnitFamily } from '@/catalogue/units'
import { term } from '@/catalogue/catalogue'

type Plate = Schemas['PlateSummaryOut']

/** Return the product of every group, such as "8 × 29.1 = 233 mm²". */
export function productLines(plate: Plate, family: UnitFamily): string[] {
  const { symbol, factor } = shownUnit('mm2', family)
  const digits = family === 'metric' ? 4 : 3
  return plate.products.map(({ count, area_mm2, open_fraction }) => {
    const share = open_fraction === 1 ? '' : ` × ${significant(open_fraction, 2)} open`
    const total = significant(count * area_mm2 * open_fraction * factor, digits)
    return `${count} × ${significant(area_mm2 * factor, digits)}${share} = ${total} ${symbol}`
  })
}

export interface Disc {
  name: string
  words: string
  /** Radius of the circle of the same area. [mm] */
  radius: number
  controls: boolean
}

/** Return the sections as discs, widest first, and which one controls. */
export function sectionDiscs(plate: Plate, family: UnitFamily): Disc[] {
  const { symbol, factor } = shownUnit('mm2', family)
  const sections = Object.entries(plate.sections_mm2).map(([name, area_mm2]) => ({ name, area_mm2 }))
  const least = Math.min(...sections.map((section) => section.area_mm2))
  return sections
    .sort((item, other) => other.area_mm2 - item.area_mm2)
    .map(({ name, area_mm2 }) => ({
      name,
      words: `${term('section', name) ?? name} ${significant(area_mm2 * factor, 3)} ${symbol}${
        area_mm2 === least ? '' : `, ${significant(area_mm2 / least, 3)} times`
      }`,
      radius: Math.sqrt(area_mm2 / Math.PI),
      controls: area_mm2 === least && sections.length > 1,
    }))
}

export interface OutletRow {
  name: string
  bore: string
  flow: string
  controls: string
  adapter: string | null
}

/** Return the flow area for every bore an engine may have, and the adapter against each. */
export function outletRows(plate: Plate, family: UnitFamily): OutletRow[] {
  const [length, area] = [shownUnit('mm', family), shownUnit('mm2', family)]
  return plate.outlets.map((outlet) => ({
    name: term('outlet', outlet.name),
    bore: significant(outlet.bore_mm * length.factor, 3),
    flow: outlet.flow_area_mm2 === null ? '…' : significant(outlet.flow_area_mm2 * area.factor, 3),
    controls: outlet.controlled_by ? term('section', outlet.controlled_by) : 'inlet not complete',
    adapter: outlet.adapter_ratio === null ? null : `${significant(outlet.adapter_ratio, 2)} of it`,
  }))
}

/** Return the division ratio in words. */
export function lossRatioWords(plate: Plate): string {
  const ratio = plate.multi_hole_loss_ratio
  if (!ratio)
    return plate.products.length ? 'The cost of dividing the area needs the plate’s thickness.' : ''
  const cold = `${significant(ratio.viscous, 3)} times cold`
  const hot = ratio.hot === null ? '' : `, ${significant(ratio.hot, 3)} times at the hot point`
  return `Against one round hole of the same area the loss is ${cold}${hot}.`
}
