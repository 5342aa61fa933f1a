/** Preferences of the person at the bench; stored in this browser, each window with its own until it is loaded again. */
import { usePreferredDark, useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { toRefs, watch } from 'vue'
import type { UnitFamily } from '@/catalogue/units'

export type Theme = 'light' | 'dark'

interface Preferences {
  family: UnitFamily
  theme: Theme
  /** Whether single keys are commands where nobody types (WCAG 2.1.4). */
  singleKeys: boolean
}

/** Stored choices, as far as they are still offered. */
function valid(stored: Partial<Preferences>, usual: Preferences): Preferences {
  return {
    family: stored.family === 'inch' ? 'inch' : usual.family,
    singleKeys: stored.singleKeys !== false,
    theme: stored.theme === 'dark' || stored.theme === 'light' ? stored.theme : usual.theme,
  }
}

export const usePreferences = defineStore('preferences', () => {
  const usual: Preferences = { family: 'metric', singleKeys: true, theme: usePreferredDark().value ? 'dark' : 'light' }
  const stored = useStorage<Preferences>('tabrel.preferences', usual, localStorage, {
    mergeDefaults: valid,
    listenToStorageChanges: false,
    onError: () => undefined, // what cannot be read is as if nothing were stored
  })
  const { family, theme, singleKeys } = toRefs(stored.value)
  watch(theme, (now) => document.documentElement.classList.toggle('dark', now === 'dark'), { immediate: true })

  function switchFamily() {
    family.value = family.value === 'metric' ? 'inch' : 'metric'
  }
  function switchTheme() {
    theme.value = theme.value === 'light' ? 'dark' : 'light'
  }
  return { family, theme, singleKeys, switchFamily, switchTheme }
})
