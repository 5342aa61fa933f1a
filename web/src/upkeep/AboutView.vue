<script setup lang="ts">
/** Versions of what runs, and everything of others that is shipped, with its licence. */
import { useQuery } from '@tanstack/vue-query'
import { client, unwrap } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import AppBar from '@/shared/AppBar.vue'

interface Notice {
  kind: 'font' | 'script' | 'wheel'
  name: string
  version: string
  licence: string
  text: string
}
const KINDS = { font: 'Fonts', script: 'Scripts and styles of the pages', wheel: 'Python packages' } as const

const service = useQuery({ queryKey: queryKeys.service(), queryFn: () => unwrap(client.GET('/api/service')), staleTime: Infinity })
/** Written when the front end is built. */
const notices = useQuery({
  queryKey: queryKeys.notices(),
  queryFn: async (): Promise<Notice[]> => (await fetch('/notices.json')).json(),
  staleTime: Infinity,
})
</script>

<template>
  <div class="whole-page">
    <AppBar title="About" />
    <main tabindex="0" aria-label="About">
      <h1>About Tabrel</h1>
      <p v-if="service.data.value">
        This is Tabrel {{ service.data.value.version }}, with Python {{ service.data.value.python }} and SQLite {{ service.data.value.sqlite }}. It asks nothing of the
        network. Its owner has named no licence for it yet; what it is built of has those below.
      </p>
      <p v-if="notices.error.value" class="said-wrong">The notices are not there: build the front end again with <span class="typed">make setup</span>.</p>
      <section v-for="(title, kind) in KINDS" v-else-if="notices.data.value" :key="kind">
        <h2>{{ title }}</h2>
        <details v-for="notice in notices.data.value.filter((item) => item.kind === kind)" :key="notice.name" :data-notice="notice.name">
          <summary>
            <span>{{ notice.name }}</span> <span class="number">{{ notice.version }}</span> <span class="soft">{{ notice.licence }}</span>
          </summary>
          <pre class="scrolls" tabindex="0">{{ notice.text }}</pre>
        </details>
      </section>
    </main>
  </div>
</template>

<style scoped>
h2 {
  margin-top: 1.4rem;
}
summary {
  display: grid;
  grid-template-columns: 1rem minmax(0, 2fr) 5rem minmax(0, 2fr);
  gap: 0.6rem;
  padding: 0.25rem 0;
  border-top: 1px solid var(--line);
}
summary::before {
  content: '▸';
}
[open] > summary::before {
  content: '▾';
}
pre {
  white-space: pre-wrap;
  max-height: 24rem;
  padding: 0.6rem 0.9rem;
  background: var(--paper);
  border: 1px solid var(--line);
}
</style>
