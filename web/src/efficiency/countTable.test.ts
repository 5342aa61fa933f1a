import { describe, expect, it } from 'vitest'
import { emptyTable, textOf, withCell, withColumn, withoutRow, withRow } from './countTable'

describe('the cells of a table of counts', () => {
  it('make a text that divides as they do', () => {
    expect(textOf([['size', 'up'], ['10', '41\t230\n']])).toBe('size\tup\n10\t41 230 ')
  })
  it('change one at a time, and grow to where it stands', () => {
    const cells = [['a', 'b'], ['c']]
    expect(withCell(cells, 1, 2, 'x')).toEqual([['a', 'b'], ['c', '', 'x']])
    expect(cells[1]).toEqual(['c'])
  })
  it('get rows and columns, and lose them', () => {
    expect(withRow([['a', 'b']])).toEqual([['a', 'b'], ['', '']])
    expect(withColumn([['a', 'b'], ['c']])).toEqual([['a', 'b', ''], ['c', '', '']])
    expect(withoutRow([['a'], ['b']], 0)).toEqual([['b']])
  })
  it('begin with the headings that are understood', () => {
    expect(emptyTable()[0]).toEqual(['size um(c)', 'upstream', 'downstream'])
  })
})
