<script setup lang="ts">
/** Take a chart or its numbers away as a file. */
import { nextTick, ref } from 'vue'
import { useActions } from './actions'
import { copyPicture, copyText } from './clipboard'
import { pngOf, saveBlob, saveText, standaloneSvg, tsv } from './download'

const props = defineProps<{
  name: string
  /** One line under the picture: what it shows. */
  caption: string
  /** The drawing, and what is painted under it. */
  drawing: () => { svg: SVGSVGElement | null; canvas: HTMLCanvasElement | null; left: number; top: number } | null
  table: () => string
}>()
const refusal = ref('')
useActions(() =>
  (['csv', 'png', 'svg'] as const).map((kind) => ({
    title: `Save ${props.name} as ${kind.toUpperCase()}`,
    words: ['export', 'download', 'save as a file', kind === 'csv' ? 'numbers' : 'picture', kind],
    run: () => void take(kind),
  })),
)
useActions(() => [
  { title: `Copy ${props.name} as a picture`, words: ['clipboard', 'share', 'picture'], run: () => void copy('picture') },
  { title: `Copy the numbers of ${props.name}`, words: ['clipboard', 'share', 'table', 'numbers'], run: () => void copy('numbers') },
])
/** Whether it is to be copied rather than saved: the same place holds either. */
const copying = ref(false)
const first = ref<HTMLButtonElement>()
async function begin() {
  copying.value = !copying.value
  await nextTick()
  if (copying.value) first.value?.focus()
}
const copied = ref('')
/** Copy the picture, its caption in it, or the numbers under their caption. */
async function copy(what: 'picture' | 'numbers') {
  refusal.value = copied.value = ''
  const drawn = what === 'picture' ? standalone() : null
  if (what === 'picture' && !drawn) return void (refusal.value = 'There is no picture to copy yet.')
  try {
    await (drawn ? copyPicture(() => pngOf(drawn.text, drawn.width, drawn.height)) : copyText(tsv(props.table(), props.caption)))
    copied.value = `${what} copied`
    copying.value = false
  } catch {
    refusal.value = 'This browser does not let it be copied: save it as a file instead.'
  }
}

function standalone(): { text: string; width: number; height: number } | null {
  const parts = props.drawing()
  if (!parts?.svg) return null
  const { backgroundColor: ground, color: ink } = getComputedStyle(document.body)
  const under = parts.canvas ? { canvas: parts.canvas, left: parts.left, top: parts.top } : null
  const text = standaloneSvg(parts.svg, under, { ground, ink }, props.caption)
  const [width, height] = ['width', 'height'].map((name) => Number(new RegExp(`<svg[^>]* ${name}="([\\d.]+)"`).exec(text)?.[1] ?? 800))
  return { text, width: width!, height: height! }
}

async function take(kind: 'csv' | 'svg' | 'png') {
  refusal.value = ''
  if (kind === 'csv') return saveText(props.table(), `${props.name}.csv`)
  const drawn = standalone()
  if (!drawn) return void (refusal.value = 'There is no picture to save yet.')
  try {
    if (kind === 'svg') saveText(drawn.text, `${props.name}.svg`, 'image/svg+xml')
    else saveBlob(await pngOf(drawn.text, drawn.width, drawn.height), `${props.name}.png`)
  } catch {
    refusal.value = 'This browser could not write the picture: take the SVG instead.'
  }
}
</script>

<template>
  <span class="downloads" role="group" aria-label="Save as a file, or copy">
    <template v-if="copying">
      <button ref="first" type="button" class="tool" data-copy="picture" title="Copy the picture with its caption" @click="copy('picture')">picture</button>
      <button type="button" class="tool" data-copy="numbers" title="Copy the numbers with the caption" @click="copy('numbers')">numbers</button>
    </template>
    <template v-else>
      <button v-for="kind in ['csv', 'png', 'svg'] as const" :key="kind" type="button" class="tool" :data-save="kind" @click="take(kind)">
        {{ kind.toUpperCase() }}
      </button>
    </template>
    <button type="button" class="tool" data-copy="begin" :aria-expanded="copying" @click="begin">{{ copying ? 'back' : 'copy' }}</button>
    <span v-if="refusal" class="said-wrong" role="alert">{{ refusal }}</span>
    <span v-else class="unseen" role="status">{{ copied }}</span>
  </span>
</template>

<style scoped>
.downloads {
  display: inline-flex;
  gap: 0.25rem;
  align-items: center;
}
</style>
