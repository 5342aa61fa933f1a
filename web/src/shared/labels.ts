/** Places of labels along a line: each as near to its mark as it can be without touching another. */
export interface Label {
  name: string
  /** Where its mark is. */
  at: number
}

/** Of a letter at the size of a chart's text. */
const LETTER = 6
const GAP = 5

/** Return the middle of every label, in the order given, within `left` and `right`. */
export function spreadLabels(labels: readonly Label[], left: number, right: number): number[] {
  const order = labels.map((_, i) => i).sort((a, b) => labels[a]!.at - labels[b]!.at)
  const half = (i: number) => (labels[i]!.name.length * LETTER) / 2
  const middle = labels.map((label) => label.at)
  let edge = left
  for (const i of order) {
    middle[i] = Math.max(middle[i]!, edge + half(i))
    edge = middle[i]! + half(i) + GAP
  }
  edge = right
  for (const i of [...order].reverse()) {
    middle[i] = Math.min(middle[i]!, edge - half(i))
    edge = middle[i]! - half(i) - GAP
  }
  return middle
}

/** Return places down a chart, each at or below its own and at least a gap from the one above, none below the floor. */
export function spreadDown(wanted: readonly number[], gap: number, floor: number): number[] {
  const order = wanted.map((_, i) => i).sort((a, b) => wanted[a]! - wanted[b]!)
  const placed = [...wanted]
  order.forEach((i, k) => (placed[i] = k ? Math.max(placed[i]!, placed[order[k - 1]!]! + gap) : placed[i]!))
  let edge = floor
  for (const i of [...order].reverse()) {
    placed[i] = Math.min(placed[i]!, edge)
    edge = placed[i]! - gap
  }
  return placed
}
