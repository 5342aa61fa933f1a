/** Keys of a view: one table that both binds them and lists them under `?`. */
import { useEventListener } from '@vueuse/core'
import { onBeforeUnmount, onMounted, reactive } from 'vue'
import { useActions } from './actions'

export interface KeyAction {
  /** As shown, such as `Alt+1` or `u`. */
  keys: string
  does: string
  matches: (event: KeyboardEvent) => boolean
  /** With no event where it was found in that box. */
  run: (event?: KeyboardEvent) => void
  /** Whether it also works while a text field has the focus. */
  inFields?: boolean
  /** Other words to find it by: with them, it is listed by `does` in the box that finds things. */
  words?: readonly string[]
  /** Whether it works without Ctrl or Alt: never on the bench, and only where single keys are not switched off. */
  single?: boolean
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

/** Whether a field is there to be typed in and has nothing in it. */
export function isEmptyField(target: EventTarget | null): boolean {
  return (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) && isTyping(target) && target.value === ''
}

/** Stations at which somebody types with the eyes on the part: a single key there is a slip, never a command. */
export const singleKeys = reactive({ atBench: false, switchedOff: false })

export function useKeys(actions: readonly KeyAction[]): void {
  function onKey(event: KeyboardEvent) {
    if (event.defaultPrevented) return
    const typing = isTyping(event.target)
    const single = !singleKeys.atBench && !singleKeys.switchedOff
    const action = actions.find(
      (candidate) => candidate.matches(event) && (!typing || candidate.inFields) && (single || !candidate.single),
    )
    if (!action) return
    event.preventDefault()
    action.run(event)
  }
  useEventListener(window, 'keydown', onKey)
  const findable = actions.filter((action) => action.words)
  if (findable.length) useActions(() => findable.map(({ does, words, run }) => ({ title: does, words: words!, run: () => run() })))
  onMounted(() => activeKeys.add(actions))
  onBeforeUnmount(() => activeKeys.delete(actions))
}

/** A key that a component binds itself, listed here so that `?` shows it. */
export function listedKey(keys: string, does: string): KeyAction {
  return { keys, does, matches: () => false, run: () => undefined }
}
