/** Where the crosshair stands; it stays when another sample is taken in hand. */
import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Condition } from '@/composables/useOperatingMap'

const START = { temperature: -25, speed: 2000 }

export const useMapPlace = defineStore('mapPlace', () => {
  const temperature = ref(START.temperature)
  const speed = ref(START.speed)
  const condition = ref<Condition>('steady')
  return { temperature, speed, condition }
})
