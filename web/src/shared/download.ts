/** Give a picture or a table to the person as a file. */

/** Give what is at an address to the person as a file. */
export function saveAddress(address: string, name: string): void {
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
}

export function saveBlob(blob: Blob, name: string): void {
  const address = URL.createObjectURL(blob)
  saveAddress(address, name)
  setTimeout(() => URL.revokeObjectURL(address), 1000)
}

export function saveText(text: string, name: string, type = 'text/csv'): void {
  saveBlob(new Blob([text], { type: `${type};charset=utf-8` }), name)
}

/**
 * Return rows as CSV; a cell with a comma, a quote or a line break is quoted. Text that a spreadsheet would take for a formula
 * is marked with an apostrophe, which importing removes; numbers never are.
 */
export function csv(rows: readonly (readonly (string | number | null)[])[]): string {
  const cell = (value: string | number | null) => {
    const text = value === null ? '' : typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : String(value)
    return /[",\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text
  }
  return rows.map((row) => row.map(cell).join(',')).join('\r\n') + '\r\n'
}

/** Return CSV as a table that is pasted into a spreadsheet: tabs between the cells, and a line that says what it is before it. */
export function tsv(text: string, caption: string): string {
  const rows: string[][] = [[]]
  for (const [, quoted, plain, end] of text.matchAll(/(?:"((?:[^"]|"")*)"|([^,"\r\n]*))(,|\r?\n|$)/g)) {
    rows.at(-1)!.push((quoted === undefined ? (plain ?? '') : quoted.replaceAll('""', '"')).replace(/[\t\r\n]+/g, ' '))
    if (end && end !== ',') rows.push([])
  }
  const lines = rows.map((row) => row.join('\t')).filter((line) => line.trim())
  return [caption.replace(/\s+/g, ' '), ...lines].join('\n') + '\n'
}

const STYLED = [
  'fill', 'fill-opacity', 'stroke', 'stroke-width', 'stroke-dasharray', 'stroke-opacity', 'stroke-linejoin', 'opacity',
  'font-family', 'font-size', 'font-weight', 'text-anchor', 'paint-order', 'display',
] as const

const CAPTION_HEIGHT = 28

/** Return a drawing as a document of its own: styles written into it, what is painted under it as an image, and a caption. */
export function standaloneSvg(
  svg: SVGSVGElement,
  under: { canvas: HTMLCanvasElement; left: number; top: number } | null,
  page: { ground: string; ink: string },
  caption: string,
): string {
  const copy = svg.cloneNode(true) as SVGSVGElement
  const from = svg.querySelectorAll('*')
  copy.querySelectorAll('*').forEach((element, i) => {
    const style = getComputedStyle(from[i]!)
    const written = STYLED.map((name) => `${name}:${style.getPropertyValue(name)}`).join(';')
    element.setAttribute('style', written)
    element.removeAttribute('class')
  })
  const { width, height } = svg.getBoundingClientRect()
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('width', String(width))
  copy.setAttribute('height', String(height + CAPTION_HEIGHT))
  copy.setAttribute('viewBox', `0 0 ${width} ${height + CAPTION_HEIGHT}`)
  const make = (name: string, attributes: Record<string, string>) => {
    const element = document.createElementNS('http://www.w3.org/2000/svg', name)
    Object.entries(attributes).forEach(([key, value]) => element.setAttribute(key, value))
    return element
  }
  if (under)
    copy.prepend(
      make('image', {
        href: under.canvas.toDataURL('image/png'),
        x: String(under.left),
        y: String(under.top),
        width: String(under.canvas.width),
        height: String(under.canvas.height),
      }),
    )
  const words = make('text', { x: '10', y: String(height + CAPTION_HEIGHT - 9), 'font-family': 'sans-serif', 'font-size': '12.5', fill: page.ink })
  words.textContent = caption
  copy.append(words)
  copy.prepend(make('rect', { width: '100%', height: '100%', fill: page.ground }))
  return new XMLSerializer().serializeToString(copy)
}

/** Return a drawing as a PNG of twice its size on screen. */
export async function pngOf(svg: string, width: number, height: number): Promise<Blob> {
  const image = new Image()
  const address = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  try {
    image.src = address
    await image.decode()
    const canvas = document.createElement('canvas')
    canvas.width = 2 * width
    canvas.height = 2 * height
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
    return await new Promise((done, failed) =>
      canvas.toBlob((blob) => (blob ? done(blob) : failed(new Error('the picture could not be written'))), 'image/png'),
    )
  } finally {
    URL.revokeObjectURL(address)
  }
}
