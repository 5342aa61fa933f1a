<script setup lang="ts">
/** An order made by hand, best first: dragged, or moved by keys; two on one place are a tie. */
import { computed, nextTick, ref, useTemplateRef } from 'vue'

const props = defineProps<{ order: readonly (readonly string[])[]; labels: readonly string[]; name: string; take: (order: string[][]) => Promise<unknown> }>()

const left = computed(() => props.labels.filter((label) => !props.order.some((tied) => tied.includes(label))))
const box = useTemplateRef<HTMLElement>('box')
const dragged = ref<string | null>(null)
const placeWords = ref('')

/** The order without one filter, places that become empty taken out. */
function without(label: string): string[][] {
  return props.order.map((tied) => tied.filter((item) => item !== label)).filter((tied) => tied.length)
}

async function put(order: string[][], label: string) {
  await props.take(order)
  const place = order.findIndex((tied) => tied.includes(label))
  const tied = order[place]?.filter((item) => item !== label) ?? []
  placeWords.value = place < 0 ? `${label} has no place` : `${label} is on place ${place + 1} of ${order.length}${tied.length ? `, level with ${tied.join(', ')}` : ''}`
  await nextTick()
  box.value?.querySelector<HTMLElement>(`[data-label="${CSS.escape(label)}"]`)?.focus()
}

/** One step up or down: out of a tie to a place of its own, from a place of its own into the next one. */
function step(label: string, by: 1 | -1) {
  const at = props.order.findIndex((tied) => tied.includes(label))
  if (at < 0) return void put([...props.order.map((tied) => [...tied]), [label]], label)
  const alone = props.order[at]!.length === 1
  const rest = without(label)
  if (!alone) rest.splice(by < 0 ? at : at + 1, 0, [label])
  else {
    const next = at + by
    if (next < 0 || next >= props.order.length) return
    rest[by < 0 ? at - 1 : at]!.push(label)
  }
  void put(rest, label)
}

function onKey(event: KeyboardEvent, label: string) {
  if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
    event.preventDefault()
    step(label, event.key === 'ArrowUp' ? -1 : 1)
  } else if (event.key === 'Delete') void put(without(label), label)
}

/** Dropped on a place it is level with what is there; dropped between two it has a place of its own. */
function dropOn(place: number, between: boolean) {
  const label = dragged.value
  dragged.value = null
  if (!label) return
  const marked = props.order.map((tied) => tied.filter((item) => item !== label))
  if (between) marked.splice(place, 0, [label])
  else marked[place]!.push(label)
  void put(marked.filter((tied) => tied.length), label)
}
</script>

<template>
  <div ref="box" class="hand small" role="group" :aria-label="`Order of ${name}, best first`">
    <template v-for="(tied, place) in order" :key="place">
      <span class="gap" :class="{ on: dragged }" @dragover.prevent @drop.prevent="dropOn(place, true)" />
      <span class="place" @dragover.prevent @drop.prevent="dropOn(place, false)">
        <span class="number soft" aria-hidden="true">{{ place + 1 }}</span>
        <button
          v-for="label in tied"
          :key="label"
          type="button"
          draggable="true"
          :data-label="label"
          :aria-label="`${label}, place ${place + 1}${tied.length > 1 ? ', tied' : ''}: arrow up or down moves it, Delete takes it out`"
          @dragstart="dragged = label"
          @dragend="dragged = null"
          @keydown="onKey($event, label)"
        >
          {{ label }}
        </button>
      </span>
    </template>
    <span class="gap" :class="{ on: dragged }" @dragover.prevent @drop.prevent="dropOn(order.length, true)" />
    <span v-if="left.length" class="left">
      <span class="soft">no place yet</span>
      <button
        v-for="label in left"
        :key="label"
        type="button"
        draggable="true"
        :data-label="label"
        :aria-label="`${label}, no place yet: Enter puts it last`"
        @dragstart="dragged = label"
        @dragend="dragged = null"
        @click="step(label, 1)"
      >
        {{ label }}
      </button>
    </span>
    <span class="unseen" role="status">{{ placeWords }}</span>
  </div>
</template>

<style scoped>
.hand {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
}
.place,
.left {
  display: inline-flex;
  align-items: center;
  gap: 0.25rem;
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 0.1rem 0.35rem;
}
.left {
  border-style: dashed;
}
.gap {
  width: 0.7rem;
  align-self: stretch;
}
.gap.on {
  width: 1.4rem;
  border-left: 2px solid var(--hand);
}
button {
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  background: var(--paper);
  padding: 0.1rem 0.4rem;
  cursor: grab;
  min-height: 1.5rem;
}
</style>
