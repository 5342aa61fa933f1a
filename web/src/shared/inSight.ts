/** The picture and the table that a view shows most of, for copying them. */
import { pngOf, standaloneSvg } from './download'

function areaInSight(element: Element): number {
  const { left, right, top, bottom } = element.getBoundingClientRect()
  const width = Math.min(right, window.innerWidth) - Math.max(left, 0)
  const height = Math.min(bottom, window.innerHeight) - Math.max(top, 0)
  return width > 0 && height > 0 ? width * height : 0
}

function largest<T extends Element>(elements: Iterable<T>): T | null {
  let widest: T | null = null
  for (const element of elements) if (areaInSight(element) > (widest ? areaInSight(widest) : 0)) widest = element
  return widest
}

/** Return the largest drawing in sight as a function that paints it, with what it says as its caption; null where there is none. */
export function pictureInSight(root: Element, title: string): (() => Promise<Blob>) | null {
  const svg = largest(root.querySelectorAll<SVGSVGElement>('svg[role="img"], svg[aria-label]'))
  if (!svg) return null
  const { backgroundColor: ground, color: ink } = getComputedStyle(document.body)
  const canvas = svg.parentElement?.querySelector('canvas') ?? null
  const at = canvas?.getBoundingClientRect()
  const from = svg.getBoundingClientRect()
  const under = canvas && at ? { canvas, left: at.left - from.left, top: at.top - from.top } : null
  const says = svg.getAttribute('aria-label') ?? svg.querySelector('title')?.textContent ?? ''
  const text = standaloneSvg(svg, under, { ground, ink }, [title, says].filter(Boolean).join(': '))
  return () => pngOf(text, from.width, from.height + 28)
}

/** Return the largest table in sight as lines of cells with tabs between, a caption before them; null where there is none. */
export function tableInSight(root: Element, title: string): string | null {
  const table = largest(root.querySelectorAll('table'))
  if (!table) return null
  const says = table.caption?.textContent ?? table.closest('[aria-label]')?.getAttribute('aria-label') ?? ''
  const plain = (text: string | null) => (text ?? '').replace(/\s+/g, ' ').trim()
  const lines = [...table.rows].map((row) => [...row.cells].flatMap((cell) => [plain(cell.textContent), ...Array<string>(cell.colSpan - 1).fill('')]).join('\t'))
  return [[title, plain(says)].filter(Boolean).join(': '), ...lines].join('\n') + '\n'
}
