<script setup lang="ts">
/** Views of practitioners where they differ: the view this program leans to first, in bold. */
defineProps<{ schools: readonly string[] }>()
</script>

<template>
  <ul class="schools">
    <li v-for="(school, i) in schools" :key="school">
      <strong v-if="i === 0">{{ school }}</strong><template v-else>{{ school }}</template>
    </li>
  </ul>
</template>

<style scoped>
.schools {
  margin: 0.3rem 0 0.2rem;
  padding-left: 1.1rem;
  font-size: 0.86rem;
  grid-column: 2 / -1;
}
</style>
