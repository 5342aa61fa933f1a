/** What the person at the bench prefers; kept in this browser. */
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import type { UnitFamily } from './units'

export type Theme = 'light' | 'dark'

const KEY = 'tabrel.preferences'

interface Kept {
  family: UnitFamily
  theme: Theme
}

function kept(): Kept {
  const usual: Kept = {
    family: 'metric',
    theme: window.matchMedia?.('(prefers-color-scheme: dark)').matches ? 'dark' : 'light',
  }
  try {
    const read = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Kept>
    return {
      family: read.family === 'inch' ? 'inch' : usual.family,
      theme: read.theme === 'dark' || read.theme === 'light' ? read.theme : usual.theme,
    }
  } catch {
    return usual
  }
}

export const usePreferences = defineStore('preferences', () => {
  const start = kept()
  const family = ref<UnitFamily>(start.family)
  const theme = ref<Theme>(start.theme)

  watch(
    [family, theme],
    () => {
      localStorage.setItem(KEY, JSON.stringify({ family: family.value, theme: theme.value }))
      document.documentElement.classList.toggle('dark', theme.value === 'dark')
    },
    { immediate: true },
  )

  function switchFamily() {
    family.value = family.value === 'metric' ? 'inch' : 'metric'
  }
  function switchTheme() {
    theme.value = theme.value === 'light' ? 'dark' : 'light'
  }
  return { family, theme, switchFamily, switchTheme }
})
