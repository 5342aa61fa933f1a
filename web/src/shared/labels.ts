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
