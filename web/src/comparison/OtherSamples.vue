<script setup lang="ts">
/** Samples of other studies to be put beside these: found by words, put in with a press. */
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { ref, toRef } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

const props = defineProps<{ studyId: number; taken: readonly number[] }>()
const emit = defineEmits<{ add: [sampleId: number] }>()
const words = ref('')
const settled = refDebounced(words, 150)
const others = useQuery({
  queryKey: queryKeys.others(toRef(props, 'studyId'), settled),
  queryFn: () => unwrap(client.GET('/api/studies/{study_id}/others', { params: { path: { study_id: props.studyId }, query: { words: settled.value } } })),
  placeholderData: keepPreviousData,
})
</script>

<template>
  <section class="others small" aria-label="Samples of other studies">
    <label>find a sample of another study <input v-model="words" placeholder="label, maker, part number or study" autocomplete="off" /></label>
    <ul v-if="others.data.value?.length" class="scrolls">
      <li v-for="other in others.data.value" :key="other.sample_id">
        <button type="button" class="tool" :disabled="taken.includes(other.sample_id)" @click="emit('add', other.sample_id)">{{ other.label }}</button>
        <span class="soft">{{ [other.maker, other.part_number].filter(Boolean).join(' ') }} · {{ other.other_study }}</span>
      </li>
    </ul>
    <p v-else-if="others.data.value" class="soft">{{ settled ? 'No sample of another study has that in its name.' : 'There is no other study with a sample yet.' }}</p>
  </section>
</template>

<style scoped>
.others {
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--paper);
  padding: 0.4rem 0.7rem;
}
.others input {
  width: 20rem;
  max-width: 100%;
}
ul {
  margin: 0.4rem 0 0;
  max-height: 9rem;
}
li {
  padding: 0.1rem 0;
}
.soft {
  margin-left: 0.5rem;
}
</style>
