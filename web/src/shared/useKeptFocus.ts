/** Keep the focus in a view: where a change takes away what had it, it comes back to the same field. */
import { useEventListener } from '@vueuse/core'
import { nextTick, watch, type Ref } from 'vue'

const FOCUSABLE = 'input:not([type="hidden"]), textarea, select, [role="radio"], button'

export function useKeptFocus(root: Readonly<Ref<HTMLElement | null>>, changed: () => unknown): void {
  let last: { id: string; key: string } | null = null

  useEventListener(root, 'focusin', (event: FocusEvent) => {
    const target = event.target as HTMLElement
    last = { id: target.id, key: target.closest<HTMLElement>('[data-key]')?.dataset.key ?? '' }
  })

  /** Whether the focus fell to the page. */
  function isLost(): boolean {
    const { activeElement } = document
    return !activeElement || activeElement === document.body
  }

  function restore() {
    if (!last || !isLost()) return
    const within = root.value
    const byId = last.id ? within?.querySelector<HTMLElement>(`#${CSS.escape(last.id)}`) : null
    const place = last.key ? within?.querySelector<HTMLElement>(`[data-key="${CSS.escape(last.key)}"]`) : null
    const target = byId ?? (place?.matches(FOCUSABLE) ? place : place?.querySelector<HTMLElement>(FOCUSABLE))
    ;(target ?? within?.querySelector<HTMLElement>('[data-stop] input, [data-stop] textarea'))?.focus()
  }

  watch(
    changed,
    async () => {
      await nextTick()
      restore()
    },
    { flush: 'post' },
  )
}
