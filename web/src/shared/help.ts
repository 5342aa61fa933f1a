/** The help: whether it is open, and what it shows. */
import { defineStore } from 'pinia'
import { ref } from 'vue'

export const useHelp = defineStore('help', () => {
  const open = ref(false)
  const tab = ref<'keys' | 'glossary'>('keys')
  /** Search text of the glossary. */
  const term = ref('')

  /** Open it at the keys, or close it. */
  function toggle() {
    tab.value = 'keys'
    open.value = !open.value
  }
  /** Open the glossary at a term. */
  function explain(words: string) {
    term.value = words
    tab.value = 'glossary'
    open.value = true
  }
  return { open, tab, term, toggle, explain }
})
