<script setup lang="ts">
/** The oil of the short sheet: a typical one of a grade to begin with, or the one that is there.
 *  A plain select: an arrow chooses without opening a list, and Enter saves and goes on. */
import { ref } from 'vue'
import { useRefusal } from '@/shared/useRefusal'

const props = defineProps<{ name: string; grades: readonly string[]; set: (grade: string) => Promise<unknown> }>()
const emit = defineEmits<{ next: []; previous: []; here: [] }>()

const grade = ref('')
const { refused, guarded } = useRefusal()

async function keep() {
  if (grade.value && (await guarded(() => props.set(grade.value)))) grade.value = ''
}

function onKey(event: KeyboardEvent) {
  if (event.key !== 'Enter') return
  event.preventDefault()
  void keep()
  if (event.shiftKey) emit('previous')
  else emit('next')
}
</script>

<template>
  <div class="row oil" data-key="oil" data-stop :data-answered="name !== ''" @focusin="$emit('here')">
    <label for="short-oil">Oil</label>
    <select id="short-oil" v-model="grade" :aria-invalid="refused !== ''" @keydown="onKey" @change="keep">
      <option value="">{{ name ? 'another grade …' : 'choose a grade …' }}</option>
      <option v-for="grade in grades" :key="grade" :value="grade">{{ grade }}, typical</option>
    </select>
    <p class="name small flush">{{ name }}</p>
    <p v-if="refused" class="said-wrong small flush" role="alert">{{ refused }}</p>
  </div>
</template>

<style scoped>
.oil {
  display: grid;
  align-items: center;
  column-gap: 0.9rem;
  padding-inline: 0.9rem;
  border-top: 1px solid var(--line);
}
.oil:focus-within {
  background: var(--hand-wash);
}
select {
  min-height: 2.1rem;
  padding: 0.15rem 0.4rem;
}
.name {
  grid-column: 3 / -1;
}
.said-wrong {
  grid-column: 2 / -1;
}
</style>
