<script setup lang="ts">
/** Parts of the sample that no station shows yet: benches and photographs, value by value. */
import { useQuery } from '@tanstack/vue-query'
import { toRef } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'

const props = defineProps<{ sampleId: number }>()
const kept = useQuery({
  queryKey: queryKeys.kept(toRef(props, 'sampleId')),
  queryFn: () => unwrap(client.GET('/api/samples/{sample_id}/kept', { params: { path: { sample_id: props.sampleId } } })),
  shallow: true,
})
</script>

<template>
  <section v-if="kept.data.value?.length" class="card kept" aria-label="Also kept">
    <h2>Also kept</h2>
    <p class="soft small">Read with the study document and written back with it; no station computes with it yet.</p>
    <details v-for="part in kept.data.value" :key="part.title" :data-kept="part.title">
      <summary>{{ part.title }} <span class="soft">{{ part.rows.length }} values</span></summary>
      <table class="small">
        <tbody>
          <tr v-for="row in part.rows" :key="row.key">
            <td class="typed">{{ row.key }}</td>
            <td>{{ row.value }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </section>
</template>

<style scoped>
p {
  margin: 0.1rem 0 0.3rem;
}
table {
  margin: 0.2rem 0 0.5rem 1rem;
}
td {
  border-top: 1px solid var(--line);
  padding: 0.05rem 1rem 0.05rem 0;
  overflow-wrap: anywhere;
}
</style>
