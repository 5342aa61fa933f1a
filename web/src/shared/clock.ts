/** Return a stored time as day and minute here. */
export function clock(iso: string): string {
  if (!iso.includes('T')) return iso
  const time = new Date(iso)
  if (Number.isNaN(time.getTime())) return iso
  const two = (number: number) => String(number).padStart(2, '0')
  const day = `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())}`
  return `${day} ${two(time.getHours())}:${two(time.getMinutes())}`
}

/** Return an ISO date, or a month or year alone, in words, such as “Saturday, 3 October 2026”: how a date was understood. */
export function dateInWords(iso: string): string {
  const [year, month, day] = iso.split('-').map(Number)
  if (!year || month === undefined) return iso
  const form: Intl.DateTimeFormatOptions = { year: 'numeric', month: 'long', ...(day ? { weekday: 'long', day: 'numeric' } : {}), timeZone: 'UTC' }
  return new Intl.DateTimeFormat('en-GB', form).format(Date.UTC(year, month - 1, day ?? 1))
}
