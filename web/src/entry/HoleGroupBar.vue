<script setup lang="ts">
/** Count, shape, open part and outline of a group of holes; and the button to remove it.
 *  The shape is a plain select: a few short words, changed by an arrow without opening a list. */
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { catalogue } from '@/catalogue/catalogue'
import CopiedMark from './CopiedMark.vue'
import { useRefusal } from '@/shared/useRefusal'
import type { BenchChanges } from '@/sample/useSheet'

const props = defineProps<{ group: Schemas['HoleGroupOut']; changes: BenchChanges }>()

type Shape = Schemas['HoleGroupIn']['shape']
const count = ref('')
const percent = ref('')
const points = ref('')
const { refused, guarded: change } = useRefusal()

watch(
  () => props.group,
  (group) => {
    count.value = String(group.count)
    percent.value = String(Number(group.open_percent.toPrecision(4)))
    points.value = group.points
  },
  { immediate: true },
)
const body = computed<Schemas['HoleGroupIn']>(() => ({
  shape: props.group.shape as Shape,
  count: Number(count.value),
  open_percent: Number(percent.value.replace(',', '.')),
  points: points.value,
}))

function put(changed: Partial<Schemas['HoleGroupIn']> = {}) {
  const wanted = { ...body.value, ...changed }
  const { group } = props
  const same =
    wanted.count === group.count &&
    wanted.open_percent === Number(group.open_percent.toPrecision(4)) &&
    wanted.shape === group.shape &&
    wanted.points === group.points
  if (same) return
  if (!Number.isInteger(wanted.count)) refused.value = `${count.value || 'nothing'} is no count: type how many holes there are.`
  else if (!Number.isFinite(wanted.open_percent)) refused.value = 'Type how many per cent of each hole are open.'
  else void change(() => props.changes.changeHoles(props.group.id, wanted))
}
</script>

<template>
  <div class="bar row wrap small">
    <label>count <input v-model="count" class="narrow" inputmode="numeric" @change="put()" /></label>
    <label>
      shape
      <select
        :value="group.shape"
        @change="put({ shape: ($event.target as HTMLSelectElement).value as Shape })"
      >
        <option v-for="shape in catalogue().hole_shapes" :key="shape">{{ shape }}</option>
      </select>
    </label>
    <label>open <input v-model="percent" class="narrow" @change="put()" /> %</label>
    <label v-if="group.shape === 'outline'" class="wide">
      points in mm <input v-model="points" @change="put()" />
    </label>
    <button class="push" type="button" @click="change(() => changes.removeHoles(group.id))">Remove</button>
    <CopiedMark :things="[`holes/${group.id}`]" named />
    <p v-if="refused" class="said-wrong">{{ refused }}</p>
  </div>
</template>

<style scoped>
.bar {
  gap: 0.3rem 0.9rem;
  padding: 0.25rem 0.9rem 0.35rem;
}
input,
select,
button {
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 5px;
  padding: 0.08rem 0.35rem;
}
.narrow {
  width: 3.2rem;
  text-align: right;
}
.wide {
  flex: 1 0 100%;
}
.wide input {
  width: 80%;
  font-family: var(--typed);
}
.bar .said-wrong {
  flex: 1 0 100%;
}
</style>
