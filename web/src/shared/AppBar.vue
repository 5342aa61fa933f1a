<script setup lang="ts">
/** The name, the way back to the studies, and what holds everywhere: units and light. */
import type { UnitFamily } from '@/catalogue/units'
import { findOpen } from './actions'
import { useHelp } from './help'
import { usePreferences } from './preferences'
import SwitchButtons from './SwitchButtons.vue'

defineProps<{ title: string }>()

const preferences = usePreferences()
const help = useHelp()
const FAMILIES: readonly { label: string; value: UnitFamily }[] = [
  { label: 'mm · kPa', value: 'metric' },
  { label: 'in · psi', value: 'inch' },
]
</script>

<template>
  <header class="bar frame-bar row">
    <router-link to="/" class="name">
      <img src="/mark.svg" width="26" height="26" alt="" />
      Tabrel
    </router-link>
    <span class="study nowrap soft">{{ title }}</span>
    <span class="tools row small nowrap push">
      <slot />
      <button type="button" class="tool" title="Find or do anything (Ctrl+K)" @click="findOpen = true">Find <kbd>/</kbd></button>
      <SwitchButtons v-model="preferences.family" :options="FAMILIES" label="Unit family" small />
      <button type="button" class="tool" :title="'Switch between light and dark (key d)'" @click="preferences.switchTheme">
        {{ preferences.theme === 'light' ? 'Dark' : 'Light' }}
      </button>
      <button type="button" class="tool" title="Keys of this view, glossary (F1)" @click="help.toggle"><kbd>F1</kbd> help</button>
    </span>
  </header>
</template>

<style scoped>
.bar {
  gap: 1rem;
  padding: 0.35rem 1rem;
  background: var(--paper);
  border-bottom: 1px solid var(--line);
}
.name {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  font-family: var(--head);
  font-weight: 650;
  font-size: 1.1rem;
  color: var(--ink);
  text-decoration: none;
}
.study {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  font-family: var(--head);
  border-left: 1px solid var(--line);
  padding-left: 1rem;
}
.tools {
  flex: none;
  gap: 0.9rem;
}
@media (max-width: 700px) {
  .bar,
  .tools {
    flex: 0 1 auto;
    flex-wrap: wrap;
    gap: 0.4rem 0.7rem;
  }
}
</style>
