<script setup lang="ts">
/** Own preferences: of everything that can be seen on a filter, which choice is better; a use takes the order, and names it. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { client, ProblemError, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import AppBar from '@/shared/AppBar.vue'
import { useRefusal } from '@/shared/useRefusal'
import HandOrder from './HandOrder.vue'
import { usePreferred } from './usePreferred'

const queries = useQueryClient()
const preferred = usePreferred()
const { refused, guarded } = useRefusal()
const words = ref('')
const shown = computed(() => {
  const looked = words.value.trim().toLowerCase()
  const all = preferred.data.value ?? []
  const matches = all.filter((item) => `${item.part} ${item.title}`.toLowerCase().includes(looked))
  return [...matches].sort((item, other) => Number(other.order.length > 0) - Number(item.order.length > 0))
})

function take(preference: Schemas['PreferenceOut'], order: string[][]) {
  return guarded(async () => {
    try {
      const params = { path: { key: preference.key } }
      queries.setQueryData(queryKeys.preferences(), await unwrap(client.PUT('/api/preferences/{key}', { params, body: { order, seen: preference.order } })))
    } catch (error) {
      if (error instanceof ProblemError) await queries.invalidateQueries({ queryKey: queryKeys.preferences() })
      throw error
    }
  })
}
</script>

<template>
  <AppBar title="Own preferences" />
  <main class="preferences scrolls">
    <h1>Own preferences</h1>
    <p>
      What you think better of what can be seen on a filter, such as metal before fibre end caps. It counts in no ranking by itself: a use can take
      one of these orders as a criterion, with a weight, and then names it as yours. Practitioners differ; their views stand beside each choice on the bench.
    </p>
    <p><label>find <input v-model="words" type="search" autocomplete="off" placeholder="end caps, burr, gasket …" /></label> <RouterLink :to="{ name: 'studies' }">all studies</RouterLink></p>
    <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
    <p v-if="preferred.error.value" class="said-wrong">{{ preferred.error.value.message }}</p>
    <section v-for="item in shown" :key="item.key" :data-preference="item.key" :aria-label="`${item.part}, ${item.title}`">
      <h2 class="small"><span class="soft">{{ item.part }}</span> {{ item.title }}</h2>
      <HandOrder :order="item.order" :labels="item.choices" :name="item.title" :take="(order) => take(item, order)" />
    </section>
    <p v-if="preferred.data.value && !shown.length" class="soft">Nothing has that in its name.</p>
  </main>
</template>

<style scoped>
.preferences {
  padding: 0.8rem 1.4rem;
  max-width: 60rem;
}
h1 {
  font-size: 1.2rem;
  margin: 0 0 0.3rem;
}
h2 {
  font-weight: 500;
  margin: 0.7rem 0 0.2rem;
}
</style>
