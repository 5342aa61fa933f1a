<script setup lang="ts">
/** The pages of the comparison. */
const PAGES = [
  { name: 'sheet', title: 'Sheet' },
  { name: 'comparison', title: 'Behaviour' },
  { name: 'verdict', title: 'Verdict' },
  { name: 'same-part', title: 'Same part?' },
  { name: 'sums', title: 'Sums' },
] as const
</script>

<template>
  <nav class="pages nowrap" aria-label="Pages of the comparison">
    <RouterLink v-for="page in PAGES" :key="page.name" :to="{ name: page.name }">{{ page.title }}</RouterLink>
  </nav>
</template>

<style scoped>
.pages {
  display: flex;
  gap: 0.7rem;
}
a {
  color: var(--ink-soft);
  text-decoration: none;
  padding: 0.15rem 0;
  border-bottom: 2px solid transparent;
}
a:hover {
  color: var(--ink);
}
a.router-link-exact-active {
  color: var(--ink);
  font-weight: 600;
  border-color: var(--hand);
}
</style>
