<script setup lang="ts">
/** Take a chart or its numbers away as a file. */
import { ref } from 'vue'
import { useActions } from './actions'
import { pngOf, saveBlob, saveText, standaloneSvg } from './download'

const props = defineProps<{
  name: string
  /** One line under the picture: what it shows. */
  caption: string
  /** The drawing, and what is painted under it. */
  drawing: () => { svg: SVGSVGElement | null; canvas: HTMLCanvasElement | null; left: number; top: number } | null
  table: () => string
}>()
const said = ref('')
useActions(() =>
  (['csv', 'png', 'svg'] as const).map((kind) => ({
    title: `Save ${props.name} as ${kind.toUpperCase()}`,
    words: ['export', 'download', 'save as a file', kind === 'csv' ? 'numbers' : 'picture', kind],
    run: () => void take(kind),
  })),
)

function standalone(): { text: string; width: number; height: number } | null {
  const found = props.drawing()
  if (!found?.svg) return null
  const { backgroundColor: ground, color: ink } = getComputedStyle(document.body)
  const under = found.canvas ? { canvas: found.canvas, left: found.left, top: found.top } : null
  const text = standaloneSvg(found.svg, under, { ground, ink }, props.caption)
  const [width, height] = ['width', 'height'].map((name) => Number(new RegExp(`<svg[^>]* ${name}="([\\d.]+)"`).exec(text)?.[1] ?? 800))
  return { text, width: width!, height: height! }
}

async function take(kind: 'csv' | 'svg' | 'png') {
  said.value = ''
  if (kind === 'csv') return saveText(props.table(), `${props.name}.csv`)
  const drawn = standalone()
  if (!drawn) return void (said.value = 'There is no picture to save yet.')
  try {
    if (kind === 'svg') saveText(drawn.text, `${props.name}.svg`, 'image/svg+xml')
    else saveBlob(await pngOf(drawn.text, drawn.width, drawn.height), `${props.name}.png`)
  } catch {
    said.value = 'This browser could not write the picture: take the SVG instead.'
  }
}
</script>

<template>
  <span class="downloads" role="group" aria-label="Save as a file">
    <button v-for="kind in ['csv', 'png', 'svg'] as const" :key="kind" type="button" class="tool" :data-save="kind" @click="take(kind)">
      {{ kind.toUpperCase() }}
    </button>
    <span v-if="said" class="said-wrong" role="alert">{{ said }}</span>
  </span>
</template>

<style scoped>
.downloads {
  display: inline-flex;
  gap: 0.25rem;
  align-items: center;
}
</style>
