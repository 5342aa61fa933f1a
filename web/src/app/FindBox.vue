<script setup lang="ts">
/** Find any action, sample, part or reading by one's own words. */
import Dialog from 'primevue/dialog'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { findable, findOpen as open } from '@/shared/actions'
import { search, type Found } from '@/shared/search'

/** Of what is listed while nothing is asked yet: all that can be done here. */
const MOST_UNASKED = 14
const asked = ref('')
const at = ref(0)
const input = useTemplateRef<HTMLInputElement>('input')
const matches = computed(() => (asked.value.trim() ? search(findable.value, asked.value) : findable.value.slice(0, MOST_UNASKED)))

watch(asked, () => (at.value = 0))
watch(open, async (now) => {
  if (!now) return
  asked.value = ''
  await nextTick()
  input.value?.focus()
})

function take(entry: Found | undefined) {
  if (!entry) return
  open.value = false
  // the dialog gives the focus back first; what the entry does comes after it
  setTimeout(entry.run, 60)
}

function onKey(event: KeyboardEvent) {
  const most = matches.value.length - 1
  if (event.key === 'ArrowDown') at.value = Math.min(most, at.value + 1)
  else if (event.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (event.key === 'Enter') take(matches.value[at.value])
  else return
  event.preventDefault()
}
</script>

<template>
  <Dialog v-model:visible="open" header="Find or do" modal dismissable-mask position="top" :style="{ width: '36rem' }">
    <input
      ref="input"
      v-model="asked"
      class="asked wide"
      placeholder="base plate, flapper, undo, sample name …"
      role="combobox"
      aria-expanded="true"
      aria-controls="matches"
      :aria-activedescendant="matches[at] ? `found-${at}` : undefined"
      aria-label="What to find or do"
      autocomplete="off"
      spellcheck="false"
      autofocus
      @keydown="onKey"
    />
    <ul id="matches" role="listbox" aria-label="Found">
      <li class="spread"
        v-for="(entry, i) in matches"
        :id="`found-${i}`"
        :key="i"
        role="option"
        :aria-selected="i === at"
        @click="take(entry)"
        @pointermove="at = i"
      >
        <span class="name sentence">{{ entry.title }}</span>
        <span class="soft">{{ entry.kind }}</span>
      </li>
    </ul>
    <p v-if="!matches.length" class="soft">Nothing is known by these words: try another, such as canister, seal or relief valve.</p>
  </Dialog>
</template>

<style scoped>
.asked {
  font-size: 1.1rem;
  border: 1px solid var(--hand);
  padding: 0.5rem 0.8rem;
  margin-top: 3px;
  outline-offset: 0;
}
ul {
  margin: 0.5rem 0 0;
  min-height: 10rem;
}
li {
  display: flex;
  gap: 1rem;
  padding: 0.3rem 0.6rem;
  border-radius: 6px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--hand-wash);
  color: var(--hand);
}
</style>
