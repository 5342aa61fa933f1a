/** Return a stored time as day and minute here. */
export function clock(iso: string): string {
  if (!iso.includes('T')) return iso
  const time = new Date(iso)
  if (Number.isNaN(time.getTime())) return iso
  const two = (number: number) => String(number).padStart(2, '0')
  const day = `${time.getFullYear()}-${two(time.getMonth() + 1)}-${two(time.getDate())}`
  return `${day} ${two(time.getHours())}:${two(time.getMinutes())}`
}
