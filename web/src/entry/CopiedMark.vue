<script setup lang="ts">
/** That something was copied and holds only as an assumption, with the button that confirms it; nothing where nothing is. */
import { computed } from 'vue'
import { useCopied } from '@/sample/copies'
import { useRefusal } from '@/shared/useRefusal'

const props = defineProps<{
  things: readonly string[]
  /** Of what, where it is not said beside it. */
  of?: string
  /** Whether it names what was copied from. */
  named?: boolean
}>()

const { open, origin, confirm } = useCopied(() => props.things)
const { refused, guarded } = useRefusal()
const label = computed(() => {
  const count = open.value.length
  return props.of ? `Confirm ${count === 1 ? 'the one copied thing' : `all ${count} copied things`} of ${props.of}` : 'Confirm what was copied'
})
</script>

<template>
  <span v-if="open.length" class="copied fine">
    <template v-if="of">{{ open.length }} copied from {{ origin }}</template>
    <template v-else-if="named">copied from {{ origin }}</template>
    <button
      type="button"
      tabindex="-1"
      :aria-label="label"
      title="It counts as assumed until you have seen that it holds for this filter too (Alt+C confirms the field in hand)"
      @click="guarded(() => confirm(open))"
    >
      {{ of ? 'confirm all' : 'confirm' }}<kbd v-if="!of">Alt+C</kbd>
    </button>
    <span v-if="refused" class="said-wrong" role="alert">{{ refused }}</span>
  </span>
</template>

<style scoped>
.copied {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem;
  font-weight: 400;
  color: var(--amber-ink);
}
button {
  border: 1px dashed var(--amber);
  border-radius: 6px;
  background: var(--paper);
  padding: 0.1rem 0.5rem;
  display: inline-flex;
  gap: 0.35rem;
  align-items: center;
}
kbd {
  display: none;
}
:focus-within > * > .copied kbd,
:focus-within > .copied kbd {
  display: inline;
}
@media (pointer: coarse) {
  button {
    min-height: 2.2rem;
  }
}
</style>
