<script lang="ts">
import type { Schemas } from '@/api/client'

export type ChosenProvenance = NonNullable<Schemas['ReadingIn']['provenance']>
/** Empty: the quantity's usual one. */
export type ChosenInstrument = NonNullable<Schemas['ReadingIn']['instrument']> | ''
</script>

<script setup lang="ts">
/** Choices beside the reading being typed: provenance, instrument, note; or the reason why there is no value.
 *  Plain selects: an arrow changes them without opening a list, and Enter goes back to the reading. */
import { ref } from 'vue'
import { term, terms } from '@/catalogue/catalogue'

const props = defineProps<{ field: Schemas['FieldOut'] }>()
const emit = defineEmits<{ state: [state: Schemas['StateIn']['state']]; back: [] }>()
const provenance = defineModel<ChosenProvenance>('provenance', { required: true })
const instrument = defineModel<ChosenInstrument>('instrument', { required: true })
const note = defineModel<string>('note', { required: true })

/** Arrow keys run through the states without meaning them: the one chosen counts, on Enter or on leaving. */
const running = ref(false)

function choose(event: Event) {
  running.value = false
  const state = ((event.target as HTMLSelectElement).value || null) as Schemas['StateIn']['state']
  if (state !== props.field.state) emit('state', state)
}

function leave(event: Event) {
  ;(event.target as HTMLSelectElement).value = props.field.state ?? ''
  running.value = false
}
</script>

<template>
  <div class="choices fine" @keydown.enter.prevent="emit('back')" @keydown.escape.prevent="emit('back')">
    <select
      v-model="provenance"
      data-detail="provenance"
      tabindex="-1"
      aria-label="Provenance"
      title="where the value comes from (Alt+P)"
    >
      <option v-for="(name, key) in terms('provenance')" :key="key" :value="key">{{ name }}</option>
    </select>
    <label v-if="field.instruments.length > 1 || field.instrument !== 'none'">
      with
      <select v-model="instrument" data-detail="instrument" tabindex="-1" title="taken with (Alt+I)">
        <option value="">{{ term('instrument', field.instrument) }}</option>
        <option v-for="name in field.instruments.filter((instrument) => instrument !== field.instrument)" :key="name" :value="name">
          {{ term('instrument', name) }}
        </option>
      </select>
    </label>
    <input
      v-model="note"
      class="note"
      data-detail="note"
      tabindex="-1"
      placeholder="note (Alt+N)"
      aria-label="Note"
    />
    <select
      v-if="!field.estimate && !field.counted"
      data-detail="state"
      tabindex="-1"
      aria-label="Why there is no value"
      :value="field.state ?? ''"
      title="why there is no value (Alt+S); the words can be typed too"
      @pointerdown="running = false"
      @keydown="running = true"
      @keydown.enter="choose"
      @keydown.escape="leave"
      @change="running || choose($event)"
      @blur="running && choose($event)"
    >
      <option value="">no value because …</option>
      <option v-for="(name, key) in terms('state')" :key="key" :value="key">{{ name }}</option>
    </select>
    <slot />
  </div>
</template>

<style scoped>
.choices {
  flex-wrap: wrap;
  gap: 0.25rem 0.5rem;
  align-items: center;
  margin-top: 0.2rem;
}
select {
  max-width: 9.5rem;
}
select,
.note {
  padding: 0.08rem 0.3rem;
}
.note {
  width: 6.4rem;
}
</style>
