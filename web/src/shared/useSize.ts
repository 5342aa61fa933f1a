/** The size of an element, as it changes. */
import { onBeforeUnmount, onMounted, reactive, type Ref } from 'vue'

export function useSize(element: Readonly<Ref<HTMLElement | null>>): { width: number; height: number } {
  const size = reactive({ width: 0, height: 0 })
  let observer: ResizeObserver | undefined
  onMounted(() => {
    observer = new ResizeObserver(([entry]) => {
      size.width = Math.floor(entry!.contentRect.width)
      size.height = Math.floor(entry!.contentRect.height)
    })
    if (element.value) observer.observe(element.value)
  })
  onBeforeUnmount(() => observer?.disconnect())
  return size
}
