<script setup lang="ts">
/** The study's filters on a shelf, to one scale; one is selected. */
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { sampleColour } from '@/shared/sampleColours'
import SampleCan from '@/figures/SampleCan.vue'

const props = defineProps<{ samples: readonly Schemas['SampleTagOut'][]; inHand: number; bench: boolean; address: (id: number) => string }>()
defineEmits<{ pick: [id: number]; add: []; duplicate: []; status: [status: 'in_use' | 'archived' | 'deleted'] }>()

const archived = computed(() => props.samples.find((sample) => sample.id === props.inHand)?.status === 'archived')

/** The selected one stays in sight, however many there are. */
const cans = useTemplateRef<HTMLElement>('cans')
watch(
  () => [props.inHand, props.samples.length],
  async () => {
    await nextTick()
    cans.value?.querySelector('.in-hand')?.scrollIntoView?.({ block: 'nearest', inline: 'nearest' })
  },
  { immediate: true },
)

const SHELF_HEIGHT = 50
const tallest = computed(() => Math.max(90, ...props.samples.map((sample) => sample.can_height_mm ?? 0)))
const scale = computed(() => SHELF_HEIGHT / tallest.value)
</script>

<template>
  <div class="rack">
  <ul ref="cans" class="cans" aria-label="Samples">
    <li v-for="(sample, i) in samples" :key="sample.id">
      <a
        :href="address(sample.id)"
        :class="{ 'in-hand': sample.id === inHand, archived: sample.status === 'archived' }"
        :aria-current="sample.id === inHand ? 'true' : undefined"
        :title="`Select ${sample.label} (Alt+${i + 1})`"
        @click.exact.prevent="$emit('pick', sample.id)"
      >
        <span class="shelf">
          <SampleCan
            :height-mm="sample.can_height_mm"
            :diameter-mm="sample.can_diameter_mm"
            :colour="sampleColour(i)"
            :scale="scale"
          />
        </span>
        <span class="tag stack small">
          <strong>{{ sample.label }}<span v-if="sample.is_reference" class="soft" title="reference part"> ref.</span><span v-if="sample.status === 'archived'" class="soft"> archived</span></strong>
          <span class="soft">{{ sample.part_number ?? 'no part number' }}</span>
        </span>
        <kbd>{{ bench ? 'Alt+' : '' }}{{ i + 1 }}</kbd>
      </a>
    </li>
  </ul>
    <div class="more">
      <span class="pair stack">
      <button type="button" class="add small nowrap" title="Add a sample to this study" @click="$emit('add')">+ sample</button>
      <button type="button" class="add small nowrap" title="Begin a sample with parts of this one (Alt+D)" @click="$emit('duplicate')">Duplicate …</button>
      </span>
      <span class="pair stack">
        <button v-if="archived" type="button" class="add small nowrap" @click="$emit('status', 'in_use')">Put back</button>
        <button v-else type="button" class="add small nowrap" title="Put the selected sample away: it is kept, and left out of comparisons" @click="$emit('status', 'archived')">Archive</button>
        <button type="button" class="add small nowrap" title="Delete the selected sample; undo brings it back" @click="$emit('status', 'deleted')">Delete</button>
      </span>
    </div>
  </div>
</template>

<style scoped>
.rack {
  display: flex;
  gap: 0.25rem;
  flex: 0 1 auto;
  min-width: 0;
  max-width: 100%;
}
.cans {
  display: flex;
  gap: 0.25rem;
  align-items: flex-end;
  min-width: 0;
  overflow-x: auto;
}
a {
  display: flex;
  align-items: flex-end;
  gap: 0.6rem;
  border-bottom: 3px solid var(--slate);
  padding: 0.35rem 0.6rem 0.3rem;
  color: inherit;
  text-decoration: none;
  border-radius: 8px 8px 0 0;
}
:is(a, .add):hover {
  background: var(--paper);
}
a.in-hand {
  background: var(--hand-wash);
  border-bottom-color: var(--hand);
}
.more {
  align-self: center;
  flex: none;
  display: flex;
  gap: 0.2rem;
}
.add {
  border: 1px dashed var(--line-strong);
  background: none;
  border-radius: 8px;
  padding: 0.15rem 0.7rem;
}
.pair {
  gap: 0.2rem;
}
.archived {
  border-bottom-style: dashed;
}
.shelf {
  display: flex;
  align-items: flex-end;
  height: 50px;
}
.tag {
  text-align: left;
  line-height: 1.25;
  max-width: 7.5rem;
  padding-bottom: 0.35rem;
}
.tag > * {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
kbd {
  font-size: var(--fine);
}
.in-hand strong {
  color: var(--hand);
}
</style>
