/** Which rows of the comparison sheet are shown, in which order, and what stands in a cell. */
import type { Schemas } from '@/api/client'
import { inUnit, shownUnit, type ShownUnit, type UnitFamily } from '@/catalogue/units'
import { signedNumber, significant } from '@/shared/numbers'
import { knownWords } from './ranking'

export type Sheet = Schemas['ComparisonSheetOut']
export type Row = Schemas['SheetRowOut']
export type Cell = Schemas['SheetCellOut']

export type Kept = 'all' | 'differs' | 'matters'
export type Order = 'bench' | 'difference' | 'name'

/** Filter and order of the rows. */
export interface Asked {
  kept: Kept
  words: string
  order: Order
}

/** The greatest difference to the reference that is told apart, as a factor that is the same up and down. */
function apartness(row: Row): number {
  const differences = row.cells.filter((cell) => cell.differs).map((cell) => {
    if (cell.difference === null) return row.is_number ? 0 : 0.01
    return row.difference_unit === '%' ? Math.abs(Math.log(Math.max(1 + cell.difference / 100, 1e-6))) : Math.abs(cell.difference) / 100
  })
  return differences.length ? 1 + Math.max(...differences) : 0
}

export function shownRows(rows: readonly Row[], { kept, words, order }: Asked): Row[] {
  const looked = words.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const left = rows.filter((row) => {
    if (kept === 'differs' && !row.differs) return false
    if (kept === 'matters' && !row.matters) return false
    const text = `${row.title} ${row.group}`.toLowerCase()
    return looked.every((word) => text.includes(word))
  })
  if (order === 'name') return left.sort((item, other) => item.title.localeCompare(other.title))
  if (order === 'difference') return left.sort((item, other) => apartness(other) - apartness(item))
  return left
}

/** Columns in the order of a row, the best or the largest first, what has no number last; without a row as they are. */
export function columnOrder(count: number, row: Row | undefined): number[] {
  const places = Array.from({ length: count }, (_, i) => i)
  if (!row) return places
  const sign = row.better === 'low' ? 1 : -1
  const figure = (i: number) => {
    const cell = row.cells[i]!
    const value = cell.value ?? cell.low ?? cell.high
    return value === null ? null : sign * value
  }
  return places.sort((place, other) => {
    const [a, b] = [figure(place), figure(other)]
    if (a === null || b === null) return a === b ? place - other : a === null ? 1 : -1
    return a - b || place - other
  })
}

/** Text of a cell: a number with its U, a bound, words; an unknown value is a word, never a blank. */
export function cellWords(row: Row, cell: Cell, family: UnitFamily): string {
  if (!row.is_number) return (family === 'metric' ? cell.metric : cell.inch) ?? 'not looked at'
  return knownWords({ label: '', ...cell }, row, family)
}

/** The difference to the reference part; one of many times it is told as how many times. */
export function differenceWords(row: Row, cell: Cell, family: UnitFamily): string {
  if (cell.difference === null) return ''
  const unit = differenceUnit(row, family)
  const by = cell.difference * unit.factor
  if (row.difference_unit === '%' && by >= 900) return `× ${significant(1 + by / 100, 2)}`
  return `${signedNumber(Number(by.toFixed(Math.abs(by) < 9.95 ? 1 : 0)))} ${unit.symbol}`
}

/** Unit of the differences of a row: per cent, or that of temperatures in a family. */
export function differenceUnit(row: Row, family: UnitFamily): Pick<ShownUnit, 'symbol' | 'factor'> {
  return row.difference_unit === 'K' ? shownUnit('k', family) : { symbol: row.difference_unit, factor: 1 }
}

/** Words that the row itself makes plain. */
const SAID_BY_THE_ROW: ReadonlySet<string> = new Set(['measured', 'model', 'price'])

/** Basis of a cell, if it is not a measurement. */
export function basisWords(cell: Cell): string {
  if (cell.evidence) return cell.evidence
  return cell.basis === null || SAID_BY_THE_ROW.has(cell.basis) ? '' : cell.basis.replaceAll('_', ' ')
}

type Place = Schemas['PercentileOut']

/** A number in the unit of a family, as it is said in a sentence. */
function placeWords(place: Place, value: number, family: UnitFamily): string {
  const unit = place[family]
  return `${significant(inUnit(value, unit), 3)}${unit.symbol ? ` ${unit.symbol}` : ''}`
}

/** Where a number lies among the others, in a sentence. */
export function percentileWords(place: Place, label: string, family: UnitFamily = 'metric'): string {
  if (place.percentile === null) return `No other filter of this size has it in this database.`
  const others = place.count === 1 ? 'the only other one' : `${place.count} others`
  const below = Math.round(place.percentile)
  const where = place.count === 1 ? (below > 50 ? `is above` : below < 50 ? `is below` : `is level with`) : `lies above ${below} % of`
  const best = place.best ? ` Best of the others: ${placeWords(place, place.best.value, family)}, ${place.best.label} (${place.best.study_name}).` : ''
  return `${label} ${where} ${others} of its size in this database.${best}`
}

/** Question about a number far outside everything measured. */
export function outsideWords(place: Place, label: string, family: UnitFamily): string {
  const [low, high] = [place.quantiles[0]!, place.quantiles.at(-1)!]
  return `${label}, ${place.title}: ${placeWords(place, place.value, family)} lies far outside everything measured so far (${placeWords(place, low, family)} to ${placeWords(place, high, family)}, ${place.count} others of its size). Look at the reading again.`
}
