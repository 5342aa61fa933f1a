<script setup lang="ts">
/** The keys that work in this view. */
import Dialog from 'primevue/dialog'
import { activeKeys } from '@/shared/useKeys'
import { computed } from 'vue'

const open = defineModel<boolean>('open', { required: true })
const rows = computed(() => [...activeKeys].reverse().flat())
</script>

<template>
  <Dialog v-model:visible="open" header="Keys in this view" modal dismissable-mask :style="{ width: '30rem' }">
    <dl class="keys">
      <template v-for="action in rows" :key="action.keys">
        <dt>
          <kbd>{{ action.keys }}</kbd>
        </dt>
        <dd>{{ action.does }}</dd>
      </template>
    </dl>
  </Dialog>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 0.4rem 1rem;
  margin: 0;
}
dd {
  margin: 0;
}
</style>
