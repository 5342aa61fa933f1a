/**
 * What is typed into a field and not taken yet: the hand that goes on enters it, as Enter does. What is refused stays as it
 * was typed, with its sentence, in its own field and no other, whatever is opened meanwhile; a page loaded again has it too.
 */
import { onDatabase } from '@/api/database'
import { onBeforeUnmount, onMounted, reactive, watch, type Ref } from 'vue'

interface Typed {
  text: string
  /** Why it was refused; empty where nothing was asked yet. */
  refused: string
}

const KEY = 'tabrel.typed'
const kept = JSON.parse(sessionStorage.getItem(KEY) ?? '{}') as { database?: string; texts?: [string, Typed][] }
let database = kept.database
const typed = reactive(new Map<string, Typed>(kept.texts))
watch(typed, () => sessionStorage.setItem(KEY, JSON.stringify({ database, texts: [...typed] })), { flush: 'sync', deep: true })
window.addEventListener('beforeunload', (event) => {
  if (typed.size) event.preventDefault()
})

const fields = new Set<() => void>()

/** Id of a field of readings, or of the line that adds holes: of its sample, and of its group where it is a size of holes. */
export const typedId = (sampleId: number, key: string, holeGroupId?: number) => `${sampleId}/${holeGroupId ?? ''}/${key}`

/** Enter whatever is typed and not taken yet: another view is opened. */
export function enterTyped(): void {
  for (const enter of fields) enter()
}

/** Forget what was typed. */
export function forgetTyped(): void {
  typed.clear()
}
// ids of another database name other samples
onDatabase((identity) => {
  if (database !== undefined && database !== identity) forgetTyped()
  database = identity
})

/** Which of these fields hold a text that was refused. */
export function refusedOf(ids: readonly string[]): string[] {
  return ids.filter((id) => typed.get(id)?.refused)
}

/**
 * Keep the text of a field by its id, which names the sample too.
 *
 * `take` enters the text in the field, at once.
 */
export function useTyped(id: () => string, text: Ref<string>, refused: Ref<string>, take: () => void) {
  function restore() {
    const kept = typed.get(id())
    text.value = kept?.text ?? ''
    refused.value = kept?.refused ?? ''
  }
  /** A text that was refused is not sent again and again. */
  function enter() {
    if (text.value.trim() && !refused.value) take()
  }
  watch(text, () => (refused.value = ''), { flush: 'sync' })
  watch([text, refused], () => (text.value.trim() ? typed.set(id(), { text: text.value, refused: refused.value }) : typed.delete(id())), { flush: 'sync' })
  watch(id, restore, { flush: 'sync' })
  restore()
  onMounted(() => fields.add(enter))
  onBeforeUnmount(() => {
    enter()
    fields.delete(enter)
  })

  return {
    /** Put a text that was refused back where it was typed, unless something else is typed there by now. */
    comeBack(at: string, was: string, words: string) {
      if (at !== id()) {
        refused.value = typed.get(id())?.refused ?? ''
        if (!typed.get(at)?.text.trim()) typed.set(at, { text: was, refused: words })
        return
      }
      if (!text.value) text.value = was
      if (text.value === was) refused.value = words
    },
    /** Enter it when the focus leaves the field and what belongs to it, for something else in this window. */
    onFocusOut(event: FocusEvent) {
      const row = event.currentTarget as HTMLElement
      if (document.hasFocus() && !row.contains(event.relatedTarget as Node | null)) enter()
    },
  }
}

/** Keep what is typed into the fields of a form, which is entered as a whole, with its own sample. */
export function useTypedForm(id: () => string, fields: readonly Ref<string>[]): void {
  function restore() {
    const texts = JSON.parse(typed.get(id())?.text ?? '[]') as string[]
    fields.forEach((field, i) => (field.value = texts[i] ?? ''))
  }
  function keep(texts: readonly string[]) {
    if (texts.some((text) => text.trim())) typed.set(id(), { text: JSON.stringify(texts), refused: '' })
    else typed.delete(id())
  }
  restore()
  // once they are all there: while one sample's texts give way to another's, they are of neither
  watch(() => fields.map((field) => field.value), keep)
  watch(id, restore, { flush: 'sync' })
}
