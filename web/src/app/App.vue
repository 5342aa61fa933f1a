<script setup lang="ts">
import { usePreferences } from '@/shared/preferences'
import { bareKey, useKeys } from '@/shared/useKeys'
import Toast from 'primevue/toast'
import KeyHelp from './KeyHelp.vue'
import { ref } from 'vue'

const preferences = usePreferences()
const helpOpen = ref(false)

useKeys([
  {
    keys: 'u',
    does: 'switch between metric and inch',
    matches: bareKey('u'),
    run: preferences.switchFamily,
  },
  { keys: 'd', does: 'switch between light and dark', matches: bareKey('d'), run: preferences.switchTheme },
  { keys: '?', does: 'show or hide this list', matches: (event) => event.key === '?', run: () => (helpOpen.value = !helpOpen.value) },
])
</script>

<template>
  <router-view />
  <KeyHelp v-model:open="helpOpen" />
  <!-- what was done is told without interrupting: a status, where the kit would make it an alert -->
  <Toast position="bottom-center" :style="{ bottom: '7.2rem' }" :pt="{ message: { role: 'status', 'aria-live': 'polite' } }" />
</template>
