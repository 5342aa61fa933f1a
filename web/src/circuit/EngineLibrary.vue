<script setup lang="ts">
/** Engines saved for other studies, and invented ones to begin with; they belong to no filter. */
import type { Schemas } from '@/api/client'
import { useRefusal } from '@/shared/useRefusal'

const props = defineProps<{
  engines: readonly Schemas['LibraryEngineOut'][]
  take: (name: string) => Promise<unknown>
  save: () => Promise<unknown>
  remove: (id: number) => Promise<unknown>
}>()
const { refused: said, guarded: run } = useRefusal()

</script>

<template>
  <section class="panel" aria-label="Engine library">
    <div class="top">
      <h2>Engine library</h2>
      <button type="button" class="tool" @click="run(() => props.save())">Save this engine</button>
    </div>
    <p v-if="said" class="said-wrong" role="alert">{{ said }}</p>
    <ul>
      <li v-for="one in engines" :key="`${one.id}-${one.name}`">
        <button type="button" class="link" :data-engine="one.name" @click="run(() => props.take(one.name))">{{ one.name }}</button>
        <span class="soft"> {{ one.id === null ? 'invented, to begin with' : 'saved' }} · {{ one.words }}</span>
        <button v-if="one.id !== null" type="button" class="link" :aria-label="`Remove ${one.name} from the library`" @click="run(() => props.remove(one.id!))">remove</button>
      </li>
    </ul>
    <p class="soft fine">Choosing one gives this study its own copy; undo brings back what was there.</p>
  </section>
</template>

<style scoped>
.top {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
ul {
  margin: 0.2rem 0;
  padding: 0;
  list-style: none;
  font-size: 0.84rem;
}
li {
  padding: 0.12rem 0;
  border-bottom: 1px solid var(--line);
}
.link {
  font-weight: 600;
  margin-right: 0.3rem;
}
</style>
