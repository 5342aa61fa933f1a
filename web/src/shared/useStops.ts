/** Stops of a view for the keyboard: fields in the order of the bench, found in the page itself. */
import type { Ref } from 'vue'

/** `reading` stops are what Enter walks over; `seen` stops come after the last of them. */
export type StopKind = 'reading' | 'seen'

export function useStops(root: Readonly<Ref<HTMLElement | null>>) {
  function stops(kind?: StopKind): HTMLElement[] {
    const selector = kind ? `[data-stop="${kind}"]` : '[data-stop]'
    return [...(root.value?.querySelectorAll<HTMLElement>(selector) ?? [])]
  }

  function enter(stop: HTMLElement | undefined): boolean {
    if (!stop) return false
    stop.scrollIntoView({ block: 'nearest' })
    const target = stop.matches('input, textarea, button, [tabindex]')
      ? stop
      : stop.querySelector<HTMLElement>('input, textarea, [aria-checked="true"], [role="radio"], button')
    target?.focus()
    return target !== null
  }

  /** Go on from the stop that has the focus; false where there is none further. */
  function step(by: 1 | -1): boolean {
    const current = document.activeElement?.closest<HTMLElement>('[data-stop]')
    const kind = (current?.dataset.stop ?? 'reading') as StopKind
    const same = stops(kind)
    const place = current ? same.indexOf(current) : -1
    const next = same[place + by]
    if (next) return enter(next)
    if (by === 1 && kind === 'reading') return enter(stops('seen')[0])
    if (by === -1 && kind === 'seen') return enter(stops('reading').at(-1))
    return false
  }

  /** Put the focus on the stop of a key, or on the first inside it. */
  function focusKey(key: string): boolean {
    const place = root.value?.querySelector<HTMLElement>(`[data-key="${CSS.escape(key)}"]`)
    if (!place) return false
    place.scrollIntoView({ block: 'center' })
    return enter(place.matches('[data-stop]') ? place : (place.querySelector<HTMLElement>('[data-stop]') ?? undefined))
  }

  /** Whether nothing is being worked at: the focus is nowhere, or still on the station that was chosen. */
  function handIsFree(): boolean {
    const { activeElement } = document
    return !activeElement || activeElement === document.body || activeElement.closest('.oil-line') !== null
  }

  return { stops, step, focusKey, enter, handIsFree }
}
