<script setup lang="ts">
import { useHelp } from '@/shared/help'
import { usePreferences } from '@/shared/preferences'
import { bareKey, useKeys } from '@/shared/useKeys'
import Toast from 'primevue/toast'
import KeyHelp from './KeyHelp.vue'

const preferences = usePreferences()
const help = useHelp()

useKeys([
  {
    keys: 'u',
    does: 'switch between metric and inch',
    matches: bareKey('u'),
    run: preferences.switchFamily,
  },
  { keys: 'd', does: 'switch between light and dark', matches: bareKey('d'), run: preferences.switchTheme },
  { keys: '?', does: 'show or hide keys and glossary', matches: (event) => event.key === '?', run: help.toggle },
])
</script>

<template>
  <router-view />
  <KeyHelp />
  <!-- what was done is told without interrupting: a status, where the kit would make it an alert -->
  <Toast position="bottom-center" :style="{ bottom: '7.2rem' }" :pt="{ message: { role: 'status', 'aria-live': 'polite' } }" />
</template>
