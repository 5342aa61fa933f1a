<script setup lang="ts">
/** Slices of several samples with their 95 % bands. */
import { computed, reactive, useTemplateRef } from 'vue'
import { useElementSize } from '@vueuse/core'
import LineChart from '@/shared/LineChart.vue'
import { DASHES, holding, linear } from '@/shared/charts'
import { significant } from '@/shared/numbers'
import type { ShownUnit } from '@/catalogue/units'

export interface ShownBand {
  id: string
  label: string
  number: number
  colour: string
  along: readonly number[]
  value: readonly (number | null)[]
  low: readonly (number | null)[]
  high: readonly (number | null)[]
}

const props = defineProps<{ bands: readonly ShownBand[]; title: string; acrossTitle: string; unit: ShownUnit; isLog: boolean; mark: number }>()

const LETTER = 6.8
/** Room for the longest label at the end of a line. */
const room = computed(() => Math.min(190, Math.max(70, 20 + LETTER * Math.max(0, ...props.bands.map((band) => `${band.number} ${band.label}`.length)))))
const frame = useTemplateRef<HTMLElement>('frame')
const chart = useTemplateRef<InstanceType<typeof LineChart>>('chart')
defineExpose({ parts: () => ({ svg: chart.value?.svg ?? null, canvas: null, left: 0, top: 0 }) })
const size = reactive(useElementSize(frame))

const lines = computed(() =>
  props.bands.map((band, i) => {
    const times = (values: readonly (number | null)[]) => values.map((value) => (value === null ? null : value * props.unit.factor))
    return {
      key: band.id,
      name: `${band.number}`,
      label: `${band.number} ${band.label}`,
      xs: band.along,
      ys: times(band.value),
      low: times(band.low),
      high: times(band.high),
      ink: band.colour,
      dash: DASHES[i % DASHES.length],
      width: 2.2,
    }
  }),
)
const x = computed(() => {
  const along = props.bands[0]?.along ?? [0, 1]
  const [low, high] = [along[0]!, along.at(-1)!]
  const step = high - low > 1000 ? 1000 : high - low > 250 ? 40 : 20
  const first = Math.ceil(low / step)
  return linear(low, high, props.acrossTitle, { ticks: Array.from({ length: Math.floor(high / step) - first + 1 }, (_, i) => (first + i) * step) })
})
const y = computed(() => holding(lines.value, props.isLog, `${props.title}, ${props.unit.symbol}`))
const marks = computed(() => (x.value.share(props.mark) >= 0 && x.value.share(props.mark) <= 1 ? [{ x: props.mark, dash: 'none' }] : []))
const words = computed(
  () =>
    `${props.title} along ${props.acrossTitle}: ${lines.value
      .map((line) => {
        const [first, last] = [line.ys.find((value) => value !== null), [...line.ys].reverse().find((value) => value !== null)]
        return `${line.label} from ${first == null ? 'none' : significant(first, 2)} to ${last == null ? 'none' : significant(last, 2)}`
      })
      .join('; ')} ${props.unit.symbol}.`,
)
</script>

<template>
  <div ref="frame" class="slice">
    <LineChart v-if="size.width" ref="chart" :width="size.width" :height="Math.max(120, size.height)" :margin="{ left: 60, right: room, top: 10, bottom: 36 }" :x="x" :y="y" :lines="lines" :marks="marks" :words="words" figure="slice" />
  </div>
</template>

<style scoped>
.slice {
  min-height: 0;
  overflow: hidden;
}
</style>
