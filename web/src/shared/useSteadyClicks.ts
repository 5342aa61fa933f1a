/**
 * A press on a button is that button's click, also where the page moves under the pointer between press and release.
 *
 * Leaving a field by the mouse folds its help and shows what was wrong with it; what lies below moves, and the browser gives
 * the click to whatever holds both places.
 */
import { useEventListener } from '@vueuse/core'

const CLICKABLE = 'button, a[href], label, summary, [role="button"], [role="radio"], input[type="checkbox"], input[type="radio"]'
/** A pointer that wandered further was meant to let go elsewhere. */
const STILL_PX = 5

export function useSteadyClicks(): void {
  let pressed: { element: Element; x: number; y: number } | null = null

  useEventListener(
    document,
    'pointerdown',
    (event: PointerEvent) => {
      const element = event.isPrimary && event.button === 0 ? (event.target as Element).closest(CLICKABLE) : null
      pressed = element && { element, x: event.clientX, y: event.clientY }
    },
    { capture: true },
  )
  useEventListener(
    document,
    'click',
    (event: MouseEvent) => {
      const was = pressed
      pressed = null
      if (!was?.element.isConnected || !event.isTrusted || was.element.contains(event.target as Node)) return
      if (Math.hypot(event.clientX - was.x, event.clientY - was.y) > STILL_PX) return
      event.stopPropagation()
      was.element.dispatchEvent(new MouseEvent('click', { bubbles: true, cancelable: true, detail: 1 }))
    },
    { capture: true },
  )
}
