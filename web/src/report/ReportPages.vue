<script setup lang="ts">
/** The pages of the draft, exactly as they will print; each is drawn when it comes into sight. */
import type { Schemas } from '@/api/client'

defineProps<{ preview: Schemas['ReportPreviewOut']; stale: boolean }>()
</script>

<template>
  <ol class="pages" :class="{ stale }" aria-label="Pages of the draft">
    <li v-for="(page, i) in preview.pages" :key="i" class="stack fine">
      <img
        :src="`/api/report-previews/${preview.key}/pages/${i + 1}`"
        :alt="`Page ${i + 1} of ${preview.pages.length}`"
        :style="{ aspectRatio: `${page.width_mm} / ${page.height_mm}` }"
        :class="{ wide: page.width_mm > page.height_mm }"
        loading="lazy"
        decoding="async"
      />
      <span class="soft">{{ i + 1 }} of {{ preview.pages.length }}</span>
    </li>
  </ol>
</template>

<style scoped>
.pages {
  padding: 0 0.6rem 1rem;
}
.pages.stale {
  opacity: 0.55;
}
li {
  align-items: center;
  margin-bottom: 0.9rem;
}
img {
  width: min(100%, 46rem);
  background: #fff;
  border: 1px solid var(--line-strong);
}
img.wide {
  width: min(100%, 56rem);
}
</style>
