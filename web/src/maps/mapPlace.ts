/** Where the crosshair is, what the map shows and what is thought to be different; it stays when another sample is selected. */
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { USUAL_SIZE_UM, type Condition, type Scenario } from './useOperatingMap'
import { isChanged } from './scenario'
import type { LinkedPlace } from './mapLink'
import type { MapQuantityName } from './mapQuantities'

const START = { temperature: -25, speed: 2000, flow: 20 }

export const useMapPlace = defineStore('mapPlace', () => {
  const temperature = ref(START.temperature)
  const speed = ref(START.speed)
  /** Filter flow of the crosshair where the filter is looked at alone. [L/min] */
  const flow = ref(START.flow)
  const condition = ref<Condition>('steady')
  const quantity = ref<MapQuantityName>('element_pressure')
  const kind = ref<'engine' | 'alone'>('engine')
  /** Particle size of the system efficiency. [µm(c)] */
  const size = ref(USUAL_SIZE_UM)
  const draft = ref<Scenario>({ name: 'what if' })
  const scenario = computed<Scenario | null>(() => (isChanged(draft.value) ? draft.value : null))
  const panel = ref<'here' | 'what-if' | 'flow' | 'sensitivity'>('here')

  /** Go where a link says; what it does not say stays. */
  function follow(linked: Partial<LinkedPlace>) {
    if (linked.temperature !== undefined) temperature.value = linked.temperature
    if (linked.speed !== undefined) speed.value = linked.speed
    if (linked.flow !== undefined) flow.value = linked.flow
    if (linked.condition) condition.value = linked.condition
    if (linked.quantity) quantity.value = linked.quantity as MapQuantityName
    if (linked.kind) kind.value = linked.kind
    if (linked.size !== undefined) size.value = linked.size
    if (linked.draft) draft.value = linked.draft
  }
  return { temperature, speed, flow, condition, quantity, kind, size, draft, scenario, panel, follow }
})
