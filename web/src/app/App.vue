<script setup lang="ts">
import { useHelp } from '@/shared/help'
import { usePreferences } from '@/shared/preferences'
import { watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bareKey, isEmptyField, isTyping, singleKeys, useKeys } from '@/shared/useKeys'
import { useSteadyClicks } from '@/shared/useSteadyClicks'
import { useQuery } from '@tanstack/vue-query'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { useStale } from '@/api/stale'
import { useSameDatabase } from '@/api/database'
import { useToast } from 'primevue/usetoast'
import Toast from 'primevue/toast'
import FindBox from './FindBox.vue'
import KeyHelp from './KeyHelp.vue'
import { findOpen, useActions } from '@/shared/actions'

const preferences = usePreferences()
const help = useHelp()
const route = useRoute()
const router = useRouter()
useSteadyClicks()
useStale()
const toast = useToast()
useSameDatabase((words) => toast.add({ severity: 'secondary', summary: words, life: 15000 }))

/** A view that does not come: the server is gone, or it has been replaced and has other files. */
router.onError(async (_, to) => {
  const answers = await client.GET('/api/service').then(({ response }) => response.ok, () => false)
  if (answers) location.assign(to.fullPath)
  else toast.add({ severity: 'warn', summary: 'The server does not answer, and this page is not loaded yet: start the server, then open the page again', life: 15000 })
})
watchEffect(() => {
  singleKeys.atBench = route.meta.bench === true
  singleKeys.switchedOff = !preferences.singleKeys
})

useKeys([
  {
    keys: 'u',
    does: 'switch between metric and inch',
    matches: bareKey('u'),
    run: preferences.switchFamily,
    single: true,
  },
  { keys: 'Alt+U', does: 'switch between metric and inch, from a field too', matches: (event) => event.altKey && event.code === 'KeyU', run: preferences.switchFamily, inFields: true },
  { keys: 'd', does: 'switch between light and dark', matches: bareKey('d'), run: preferences.switchTheme, single: true },
  { keys: 'F1', does: 'show or hide keys and glossary', matches: bareKey('F1'), run: help.toggle, inFields: true },
  { keys: '?', does: 'the same', matches: (event) => event.key === '?', run: help.toggle, single: true },
])

/** A `/` begins nothing that is typed: in an empty field it opens the box too. */
useKeys([
  {
    keys: 'Ctrl+K',
    does: 'find any action, sample, part or reading (or /)',
    matches: (event) => (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k',
    run: () => (findOpen.value = true),
    inFields: true,
  },
  {
    keys: '/',
    does: 'the same, in an empty field too',
    matches: (event) => event.key === '/' && (!isTyping(event.target) || isEmptyField(event.target)),
    run: () => (findOpen.value = true),
    inFields: true,
  },
])
useActions(() => [
  { title: 'Switch between metric and inch', words: ['units', 'unit', 'mm', 'inches', 'psi'], run: preferences.switchFamily },
  { title: 'Switch between light and dark', words: ['theme', 'night', 'colours'], run: preferences.switchTheme },
  { title: 'Show keys and glossary', words: ['help', 'shortcuts', 'keyboard', 'what does it mean'], run: help.toggle },
  { title: 'Own preferences', words: ['settings', 'prefer', 'better', 'end caps', 'order of choices'], run: () => void router.push({ name: 'preferences' }) },
  { title: 'Backups', words: ['copies', 'restore', 'put back', 'verify', 'damage', 'save', 'back up', 'lost', 'database'], run: () => void router.push({ name: 'backups' }) },
  { title: 'About Tabrel', words: ['version', 'licence', 'license', 'notices', 'open source', 'fonts'], run: () => void router.push({ name: 'about' }) },
  { title: 'All studies', words: ['list', 'open another study', 'home', 'new study', 'import', 'search studies'], run: () => void router.push({ name: 'studies' }) },
])

const service = useQuery({ queryKey: queryKeys.service(), queryFn: () => unwrap(client.GET('/api/service')), staleTime: Infinity })
</script>

<template>
  <p v-if="service.data.value?.warning" class="read-only small flush" role="status">{{ service.data.value.warning }}. <router-link to="/backups">Backups</router-link></p>
  <div class="view fills"><router-view /></div>
  <KeyHelp />
  <FindBox />
  <!-- what was done is told without interrupting: a status, where the kit would make it an alert -->
  <Toast position="bottom-center" :style="{ bottom: '7.2rem' }" :pt="{ message: { role: 'status', 'aria-live': 'polite' } }" />
</template>

<style scoped>
.read-only {
  padding: 0.3rem 1rem;
  background: var(--rust);
  color: var(--paper);
}
.read-only a {
  color: inherit;
}
</style>
