<script setup lang="ts">
/** Text that is kept once it is left, or at Ctrl+Enter: what is being typed is never replaced by what comes from elsewhere. */
import { computed, ref, watch } from 'vue'

const props = defineProps<{ text: string; label: string; id?: string; lines?: number; placeholder?: string }>()
const emit = defineEmits<{ keep: [text: string] }>()
const typed = ref(props.text)
/** Text at the start of typing. */
const base = ref(props.text)
const isTyped = computed(() => typed.value !== base.value)
const changedElsewhere = computed(() => isTyped.value && props.text !== base.value && props.text !== typed.value)
watch(
  () => props.text,
  (now) => {
    if (isTyped.value && now !== typed.value) return
    typed.value = base.value = now
  },
)
function keep() {
  if (!isTyped.value) return
  base.value = typed.value
  emit('keep', typed.value)
}
function back() {
  typed.value = base.value = props.text
}
const field = ref<HTMLTextAreaElement | HTMLInputElement>()
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <textarea
    v-if="lines"
    :id="id"
    ref="field"
    v-model="typed"
    :aria-label="label"
    :rows="lines"
    :placeholder="placeholder"
    spellcheck="true"
    :data-unsaved="isTyped ? label : undefined"
    @change="keep"
    @keydown.ctrl.enter.prevent="keep"
    @keydown.esc.stop="back"
  />
  <input v-else :id="id" ref="field" v-model="typed" :aria-label="label" :placeholder="placeholder" autocomplete="off" :data-unsaved="isTyped ? label : undefined" @change="keep" @keydown.esc.stop="back" />
  <span v-if="changedElsewhere" class="said-wrong" role="alert">Another window has changed this meanwhile: leave the field and yours takes its place, or press Esc for theirs.</span>
</template>
