<script setup lang="ts">
/** Reports that were issued: each as it was, and what of the study is otherwise by now. */
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { clock } from '@/shared/clock'
import type { Report } from './useReport'

const props = defineProps<{ issued: Report['issued']; studyId: number }>()
const opened = ref<number>()
const shown = computed(() => props.issued.find((item) => item.id === opened.value))
const differences = useQuery({
  queryKey: computed(() => queryKeys.differences(props.studyId, { of: opened.value, count: shown.value?.difference_count })),
  queryFn: () => unwrap(client.GET('/api/issued-reports/{report_id}/differences', { params: { path: { report_id: opened.value! } } })),
  enabled: computed(() => opened.value !== undefined),
  retry: false,
})
const count = (n: number) => (n === 0 ? 'nothing has changed since' : n === 1 ? 'one thing has changed since' : `${n} things have changed since`)
</script>

<template>
  <section v-if="issued.length" class="issued" aria-label="Issued reports">
    <h2 class="small">Issued</h2>
    <article v-for="item in issued" :key="item.id" :data-issued="item.number">
      <p>
        <a :href="`/api/issued-reports/${item.id}/pdf`" :download="`report ${item.number}.pdf`">Report {{ item.number }}</a>
        <span class="soft what">{{ item.title }}, {{ clock(item.issued_at) }}</span>
      </p>
      <p>
        <button v-if="item.difference_count" type="button" class="tool" :aria-expanded="opened === item.id" @click="opened = opened === item.id ? undefined : item.id">{{ count(item.difference_count) }}</button>
        <span v-else class="soft">{{ count(0) }}</span>
      </p>
      <template v-if="opened === item.id">
        <p v-if="differences.error.value" class="said-wrong">{{ differences.error.value.message }}</p>
        <ul v-else class="bullets" aria-label="What has changed since">
          <li v-for="(difference, i) in differences.data.value" :key="i">
            <span v-if="difference.where !== 'study'">{{ difference.where }}: </span>{{ difference.what }}: <span class="typed">{{ difference.was ?? 'nothing' }}</span> → <span class="typed">{{ difference.now ?? 'nothing' }}</span>
          </li>
        </ul>
      </template>
    </article>
  </section>
</template>

<style scoped>
article p {
  margin: 0.2rem 0;
}
.what {
  margin-left: 0.4rem;
}
a {
  color: var(--hand);
  font-weight: 600;
}
</style>
