/** The cells of a table of counts on its way in, and the text they make. */

/** A table longer than this stays text: its cells are not drawn as fields. */
export const MOST_ROWS = 300

/** Return cells as a text whose columns are divided by tabs; a tab or a line end in a cell would divide it, and becomes a space. */
export function textOf(cells: readonly (readonly string[])[]): string {
  return cells.map((row) => row.map((cell) => cell.replace(/[\t\r\n]+/g, ' ')).join('\t')).join('\n')
}

/** Return cells with one of them changed, and as wide as it takes. */
export function withCell(cells: readonly (readonly string[])[], row: number, column: number, text: string): string[][] {
  return cells.map((cell, i) => (i === row ? Array.from({ length: Math.max(cell.length, column + 1) }, (_, k) => (k === column ? text : (cell[k] ?? ''))) : [...cell]))
}

/** Return cells with an empty row at the end, as wide as the widest. */
export function withRow(cells: readonly (readonly string[])[]): string[][] {
  return [...cells.map((row) => [...row]), Array.from({ length: widthOf(cells) }, () => '')]
}

/** Return cells with an empty column at the end. */
export function withColumn(cells: readonly (readonly string[])[]): string[][] {
  const width = widthOf(cells)
  return cells.map((row) => Array.from({ length: width + 1 }, (_, i) => row[i] ?? ''))
}

/** Return cells without a row. */
export function withoutRow(cells: readonly (readonly string[])[], row: number): string[][] {
  return cells.filter((_, i) => i !== row).map((item) => [...item])
}

export function widthOf(cells: readonly (readonly string[])[]): number {
  return Math.max(1, ...cells.map((row) => row.length))
}

/** First cells of a table to be typed. */
export function emptyTable(): string[][] {
  return [['size um(c)', 'upstream', 'downstream'], ...Array.from({ length: 8 }, () => ['', '', ''])]
}
