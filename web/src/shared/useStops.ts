/** Stops of a view for the keyboard: fields in the order of the bench, found in the page itself. */
import type { Ref } from 'vue'

export function useStops(root: Readonly<Ref<HTMLElement | null>>) {
  function stops(): HTMLElement[] {
    return [...(root.value?.querySelectorAll<HTMLElement>('[data-stop]') ?? [])]
  }

  function enter(stop: HTMLElement | undefined): boolean {
    if (!stop) return false
    stop.scrollIntoView({ block: 'nearest' })
    const target = stop.matches('input, textarea, button, [tabindex]')
      ? stop
      : stop.querySelector<HTMLElement>('input:not([type="radio"], .words), textarea, select, [role="radio"][tabindex="0"], [role="checkbox"][tabindex="0"], button')
    target?.focus()
    return target !== null
  }

  /** Go on from the stop that has the focus: fields and pictured choices alike; false where there is none further. */
  function step(by: 1 | -1): boolean {
    const current = document.activeElement?.closest<HTMLElement>('[data-stop]')
    const all = stops()
    return enter(all[(current ? all.indexOf(current) : -1) + by])
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
