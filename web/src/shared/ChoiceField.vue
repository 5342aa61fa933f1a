<script setup lang="ts">
/** One choice of several, by the kit's select: it opens by arrow keys, is searched by typing, and shows what an empty one means. */
import Select from 'primevue/select'
import { computed } from 'vue'

export interface Option {
  value: string
  label: string
}

const chosen = defineModel<string>({ required: true })
const props = defineProps<{ options: readonly Option[]; label: string; inputId?: string; /** Whether there are so many that one looks for words in them. */ searched?: boolean }>()
const options = computed(() => [...props.options])
/** The option that stands for nothing chosen. */
const empty = computed(() => props.options.find((option) => option.value === '')?.label)
</script>

<template>
  <Select
    v-model="chosen"
    class="choice"
    size="small"
    scroll-height="26rem"
    option-label="label"
    option-value="value"
    :options="options"
    :placeholder="empty"
    :label-id="inputId"
    :aria-label="label"
    :filter="searched"
    auto-filter-focus
    filter-placeholder="type a word of it"
    empty-filter-message="nothing has that in its name"
  />
</template>

<style scoped>
.choice {
  min-width: 0;
  max-width: 100%;
}
.choice:focus-within {
  outline: 2px solid var(--hand);
  outline-offset: 1px;
}
.choice :deep(.p-select-label:focus-visible) {
  outline: none;
}
</style>
