<script setup lang="ts">
/** The answer of a use: the decision first, what speaks for it and against it beneath. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'

const props = defineProps<{ answer: Schemas['AnswerOut']; studyId: number }>()
const card = computed(() => `/api/studies/${props.studyId}/report/files/pdf?size=card&use=${encodeURIComponent(props.answer.use)}`)
</script>

<template>
  <article class="answer" data-part="answer">
    <section v-for="block in answer.blocks" :key="block.name" :class="['block', { card: block.name === 'decision' }]" :data-block="block.name">
      <h3 v-if="block.title">{{ block.title }}</h3>
      <p v-for="text in block.sentences" :key="text">{{ text }}</p>
      <p v-if="block.name === 'decision'"><a class="tool small" :href="card" download>Card, one page, PDF</a></p>
    </section>
  </article>
</template>

<style scoped>
.answer {
  columns: 2 26rem;
  column-gap: 2rem;
  max-width: 76rem;
}
.block {
  break-inside: avoid;
  padding-bottom: 0.7rem;
}
.block.card {
  column-span: all;
  border-left: 6px solid var(--hand);
  padding: 0.7rem 1rem;
  margin-bottom: 0.9rem;
}
.card p:first-child {
  font-family: var(--head);
  font-weight: 600;
  font-size: 1.15rem;
}
h3 {
  color: var(--hand);
  font-size: 1rem;
}
p {
  margin: 0.1rem 0 0;
}
</style>
