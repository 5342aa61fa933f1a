/** The stops of a station for the keyboard, and where the hand begins when it opens. */
import { useTemplateRef } from 'vue'
import { useAskedField } from '@/shared/useAskedField'
import { useStops } from '@/shared/useStops'
import { useNext } from './stations'

interface Station {
  /** What has to be there before a field can be entered; looked at again when it changes. */
  ready: () => unknown
  /** Open what the field is in that the address asks for. */
  before?: (key: string) => void
  /** Begin where the address asks for no field and the hand is free; without it, nowhere. */
  begin?: (stops: ReturnType<typeof useStops>) => unknown
}

/** Needs an element `root` in the template; it is handed back for what else a station looks for in it. */
export function useBenchStops({ ready, before, begin }: Station) {
  const root = useTemplateRef<HTMLElement>('root')
  const stops = useStops(root)
  useAskedField({
    ready,
    before,
    focus: stops.focusKey,
    otherwise: () => {
      if (stops.handIsFree()) begin?.(stops)
    },
  })
  return { root, stops, next: useNext(stops), back: () => stops.step(-1) }
}
