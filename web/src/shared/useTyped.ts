/**
 * What is typed into a field and not taken yet: the hand that goes on enters it, as Enter does. What is refused stays as it
 * was typed, with its sentence, in its own field and no other, whatever is opened meanwhile; a page loaded again has it too.
 */
import { onDatabase } from '@/api/database'
import { computed, onBeforeUnmount, onMounted, reactive, watch, type Ref } from 'vue'

interface Typed {
  text: string
  /** Why it was refused; empty where nothing was asked yet. */
  refused: string
  /** The text that was refused: another one may be typed by then. */
  was: string
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

/** Keys of the fields of a sample that hold a text that was refused. */
export function refusedOf(sampleId: number): string[] {
  return [...typed].filter(([id, { refused }]) => refused && id.startsWith(`${sampleId}/`)).map(([id]) => id.split('/').slice(2).join('/'))
}

/** Text of a field by its id, which names the sample too; `take` enters it, at once. */
export function useTyped(id: () => string, take: () => void) {
  const text = computed({
    get: () => typed.get(id())?.text ?? '',
    set: (words) => (words ? typed.set(id(), { text: words, refused: '', was: '' }) : typed.delete(id())),
  })
  /** A text that was refused is not sent again and again. */
  function enter() {
    if (text.value.trim() && typed.get(id())?.was !== text.value) take()
  }
  onMounted(() => fields.add(enter))
  onBeforeUnmount(() => {
    enter()
    fields.delete(enter)
  })

  return {
    text,
    why: computed(() => typed.get(id())?.refused ?? ''),
    /** Put a text that was refused back where it was typed, whatever is shown there now; what is typed there by then stays. */
    comeBack(at: string, was: string, why: string) {
      const other = typed.get(at)?.text
      typed.set(at, { text: other ?? was, refused: other === undefined ? why : `“${was}” was not taken: ${why}`, was })
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
    if (texts.some((text) => text.trim())) typed.set(id(), { text: JSON.stringify(texts), refused: '', was: '' })
    else typed.delete(id())
  }
  restore()
  // once they are all there: while one sample's texts give way to another's, they are of neither
  watch(() => fields.map((field) => field.value), keep)
  watch(id, restore, { flush: 'sync' })
}
