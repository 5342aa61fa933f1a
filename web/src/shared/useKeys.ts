/** Keys of a view: one table that both binds them and lists them under `?`. */
import { useEventListener } from '@vueuse/core'
import { onBeforeUnmount, onMounted, reactive } from 'vue'

export interface KeyAction {
  /** As shown, such as `Alt+1` or `u`. */
  keys: string
  does: string
  matches: (event: KeyboardEvent) => boolean
  run: (event: KeyboardEvent) => void
  /** Whether it also works while a text field has the focus. */
  inFields?: boolean
}

/** A caliper that types like a keyboard sends its next key sooner than a person would. */
export const DEVICE_GAP_MS = 90

export const activeKeys = reactive(new Set<readonly KeyAction[]>())

/** Whether keys go into a text. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.matches('input:not([type="radio"], [type="checkbox"]), textarea, select, [role="combobox"], [role="listbox"], [contenteditable]')
}

/** Match a bare key such as `u`. */
export function bareKey(key: string): (event: KeyboardEvent) => boolean {
  return (event) => event.key === key && !event.altKey && !event.ctrlKey && !event.metaKey
}

export function useKeys(actions: readonly KeyAction[]): void {
  function onKey(event: KeyboardEvent) {
    if (event.defaultPrevented) return
    const typing = isTyping(event.target)
    const action = actions.find((candidate) => candidate.matches(event) && (!typing || candidate.inFields))
    if (!action) return
    event.preventDefault()
    action.run(event)
  }
  useEventListener(window, 'keydown', onKey)
  onMounted(() => activeKeys.add(actions))
  onBeforeUnmount(() => activeKeys.delete(actions))
}

/** A key that a component binds itself, listed here so that `?` shows it. */
export function listedKey(keys: string, does: string): KeyAction {
  return { keys, does, matches: () => false, run: () => undefined }
}
