/** Finding anything by the analyst's own words. */
export interface Found {
  title: string
  /** Kind of thing, such as "reading" or "part". */
  kind: string
  words: readonly string[]
  run: () => void
}

/** Return a text as it is looked for: small letters without accents, single spaces. */
export function plain(text: string): string {
  return text
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}

/** How well one entry answers: 0 not at all; more is better. */
export function score(entry: Pick<Found, 'title' | 'words' | 'kind'>, asked: string): number {
  const question = plain(asked)
  if (!question) return 0
  const title = plain(entry.title)
  const names = [title, ...entry.words.map(plain)]
  if (names.includes(question)) return 100
  const best = Math.max(0, ...names.map((name) => (name.startsWith(question) ? 60 : ` ${name}`.includes(` ${question}`) ? 40 : 0)))
  const all = ` ${names.join(' ')} ${plain(entry.kind)}`
  const every = question.split(' ').every((word) => all.includes(` ${word}`))
  return best || (every ? 20 : 0)
}

/** Return the entries that answer, the best first. */
export function search(entries: readonly Found[], asked: string, most = 12): Found[] {
  return entries
    .map((entry, i) => ({ entry, i, points: score(entry, asked) }))
    .filter((item) => item.points > 0)
    .sort((item, other) => other.points - item.points || item.i - other.i)
    .slice(0, most)
    .map((item) => item.entry)
}
