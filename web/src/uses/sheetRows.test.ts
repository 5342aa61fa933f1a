import { describe, expect, it } from 'vitest'
import { cellWords, columnOrder, differenceWords, shownRows, type Cell, type Row } from './sheetRows'

const UNIT = { metric: { symbol: 'mm', factor: 1, zero: 0 }, inch: { symbol: 'in', factor: 1 / 25.4, zero: 0 } }

function cell(value: number | null, more: Partial<Cell> = {}): Cell {
  return {
    value, expanded_uncertainty: value === null ? null : 0, low: null, high: null, basis: 'measured', reason: '', is_spread_assumed: false, words: '', evidence: '',
    metric: null, inch: null, mark: '', difference: null, differs: false, ...more,
  } // prettier-ignore
}
function row(key: string, cells: Cell[], more: Partial<Row> = {}): Row {
  return {
    key, title: key, group: 'Outside', is_number: true, better: null, matters: false, differs: cells.some((cell) => cell.differs),
    difference_unit: '%', ...UNIT, working: null, cells, ...more,
  } // prettier-ignore
}
const keys = (rows: readonly Row[]) => rows.map((row) => row.key)

describe('the rows of the sheet', () => {
  const rows = [
    row('height', [cell(98), cell(98, { difference: 0 })]),
    row('wall', [cell(0.5), cell(1, { difference: 100, differs: true })]),
    row('pleats', [cell(54), cell(18, { difference: -66.7, differs: true })], { matters: true, group: 'Element' }),
  ]
  it('are all there, or only those that differ, or that matter', () => {
    expect(keys(shownRows(rows, { kept: 'all', words: '', order: 'bench' }))).toEqual(['height', 'wall', 'pleats'])
    expect(keys(shownRows(rows, { kept: 'differs', words: '', order: 'bench' }))).toEqual(['wall', 'pleats'])
    expect(keys(shownRows(rows, { kept: 'matters', words: '', order: 'bench' }))).toEqual(['pleats'])
  })
  it('are found by words of title and group', () => {
    expect(keys(shownRows(rows, { kept: 'all', words: 'elem ple', order: 'bench' }))).toEqual(['pleats'])
  })
  it('are sorted by name, or by difference, of which a third is more than a half', () => {
    expect(keys(shownRows(rows, { kept: 'all', words: '', order: 'name' }))).toEqual(['height', 'pleats', 'wall'])
    expect(keys(shownRows(rows, { kept: 'all', words: '', order: 'difference' }))).toEqual(['pleats', 'wall', 'height'])
    expect(keys(rows)).toEqual(['height', 'wall', 'pleats'])
  })
})

describe('the columns of the sheet', () => {
  const three = [cell(2), cell(null), cell(5)]
  it('stand as they are, or by a row, the best first and what has no number last', () => {
    expect(columnOrder(3, undefined)).toEqual([0, 1, 2])
    expect(columnOrder(3, row('area', three, { better: 'high' }))).toEqual([2, 0, 1])
    expect(columnOrder(3, row('price', three, { better: 'low' }))).toEqual([0, 2, 1])
    expect(columnOrder(3, row('height', three))).toEqual([2, 0, 1])
  })
})

describe('a cell', () => {
  it('shows a number in the family, a bound, words, and what nobody looked at', () => {
    const number = row('height', [])
    expect(cellWords(number, cell(98.44, { expanded_uncertainty: 0.12 }), 'metric')).toBe('98.44 ± 0.12')
    expect(cellWords(number, cell(98.44, { expanded_uncertainty: 0.12 }), 'inch')).toBe('3.8756 ± 0.0047')
    expect(cellWords(number, cell(null, { high: -38 }), 'metric')).toBe('at most −38')
    const seen = row('grip', [], { is_number: false })
    expect(cellWords(seen, cell(null, { metric: 'fluted', inch: 'fluted' }), 'metric')).toBe('fluted')
    expect(cellWords(seen, cell(null), 'metric')).toBe('not looked at')
  })
  it('says a difference in per cent, in kelvin, or as how many times', () => {
    const single = row('height', [])
    expect(differenceWords(single, cell(1, { difference: -12.44 }), 'metric')).toBe('−12 %')
    expect(differenceWords(single, cell(1, { difference: 0.04 }), 'metric')).toBe('0 %')
    expect(differenceWords(single, cell(1, { difference: 3.21 }), 'metric')).toBe('+3.2 %')
    expect(differenceWords(single, cell(1, { difference: 122.4 }), 'metric')).toBe('+122 %')
    expect(differenceWords(single, cell(1, { difference: 6092 }), 'metric')).toBe('× 62')
    expect(differenceWords({ ...single, difference_unit: 'K' }, cell(1, { difference: -34.4 }), 'inch')).toBe('−62 °F') // of a difference, 1.8 a kelvin
    expect(differenceWords({ ...single, difference_unit: 'K' }, cell(1, { difference: 34.4 }), 'metric')).toBe('+34 K')
    expect(differenceWords(single, cell(null), 'metric')).toBe('')
  })
})
