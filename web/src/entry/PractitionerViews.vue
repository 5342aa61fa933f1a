<script setup lang="ts">
/** Views of practitioners where they differ: the view this program leans to first, in bold. */
defineProps<{ views: readonly string[] }>()
</script>

<template>
  <ul class="views bullets small">
    <li v-for="(view, i) in views" :key="view">
      <strong v-if="i === 0">{{ view }}</strong><template v-else>{{ view }}</template>
    </li>
  </ul>
</template>

<style scoped>
.views {
  margin: 0.3rem 0 0.2rem;
  grid-column: 2 / -1;
}
</style>
