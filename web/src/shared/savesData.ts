/** Whether the browser is to save data: nothing is fetched ahead then. */
export function savesData(): boolean {
  return (navigator as { connection?: { saveData?: boolean } }).connection?.saveData ?? false
}
