/** Which database the window has seen: once a copy was put back it is another one, and the window is loaded again. */
import { createGlobalState, useBroadcastChannel } from '@vueuse/core'
import { onMounted, watch } from 'vue'
import { client, requestHeaders } from './client'

const HEADER = 'Tabrel-Database'
const WORDS_KEY = 'tabrel.loadedAgain'

let seen: string | null = null
let leaving = false
let awaited: Promise<unknown> = Promise.resolve()

const useChannel = createGlobalState(() => useBroadcastChannel<string, string>({ name: 'tabrel.database' }))

/** Message to show once the window is loaded again. */
export function sayWhenLoadedAgain(words: string): void {
  sessionStorage.setItem(WORDS_KEY, words)
}

/** Load nothing again before this is done: what it says is kept for after the loading. */
export function loadAgainAfter<T>(work: Promise<T>): Promise<T> {
  awaited = work
  return work
}

const heeding: ((identity: string) => void)[] = []

/** Have something done once it is known which database is served, and again where it is another one. */
export function onDatabase(work: (identity: string) => void): void {
  heeding.push(work)
}

/** Unfinished text that belongs to the replaced database. */
function underWay(): string {
  const field = document.activeElement
  const typed = field instanceof HTMLInputElement && field.type !== 'checkbox' ? field.value.trim() : ''
  return typed ? ` “${typed}” was being typed and is not stored.` : ''
}

/** Load the window again where the database is another one. */
function heed(now: string): void {
  if (seen === null) {
    requestHeaders.set(HEADER, (seen = now))
    for (const work of heeding) work(now)
  }
  if (now === seen || leaving) return
  leaving = true
  sayWhenLoadedAgain(`A copy of the database was put back: this window was loaded again.${underWay()}`)
  for (const work of heeding) work(now)
  useChannel().post(now)
  void Promise.allSettled([awaited]).then(() => window.location.reload())
}

client.use({
  onResponse({ response }) {
    const now = response.headers.get(HEADER)
    if (now) heed(now)
  },
})

/** Hear of it from other windows too, and say after the loading why it was; once a window. */
export function useSameDatabase(say: (words: string) => void): void {
  watch(useChannel().data, (now) => now && seen !== null && heed(now))
  onMounted(() => {
    const words = sessionStorage.getItem(WORDS_KEY)
    sessionStorage.removeItem(WORDS_KEY)
    if (words) say(words)
  })
}
