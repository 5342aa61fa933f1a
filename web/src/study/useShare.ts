/** Sharing what is shown: a link that opens the same, the picture or the table in sight on the clipboard. */
import { useToast } from 'primevue/usetoast'
import type { Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { LINKED_STATIONS, placeOf, queryOf } from '@/maps/mapLink'
import { useMapPlace } from '@/maps/mapPlace'
import { mapQuantities } from '@/maps/mapQuantities'
import { useActions } from '@/shared/actions'
import { copyPicture, copyText } from '@/shared/clipboard'
import { pictureInSight, tableInSight } from '@/shared/inSight'

/** How long what was done stays in sight; a link that has to be copied by hand stays longer. */
const TOLD_MS = 6000
const TO_BE_COPIED_MS = 24_000

export function useShare(view: Readonly<Ref<HTMLElement | null>>, title: () => string): void {
  const route = useRoute()
  const router = useRouter()
  const toast = useToast()
  const place = useMapPlace()
  const isLinked = () => LINKED_STATIONS.has(String(route.name))
  // a link may say where the crosshair is and what is thought to be different; once it is followed, the hand goes on from there
  if (isLinked()) place.follow(placeOf(route.query, mapQuantities().map((quantity) => quantity.name)))

  async function copyLink() {
    const query = isLinked() ? queryOf(place) : {}
    const link = new URL(router.resolve({ path: route.path, query }).href, window.location.origin).href
    try {
      await copyText(link)
      toast.add({ severity: 'success', summary: 'Link copied', detail: link, life: TOLD_MS })
    } catch {
      toast.add({ severity: 'warn', summary: 'This browser does not let it be copied', detail: link, life: TO_BE_COPIED_MS })
    }
  }

  /** Copy what the view shows most of, with what it says. */
  async function copyInSight(what: 'picture' | 'table') {
    const picture = what === 'picture' && view.value ? pictureInSight(view.value, title()) : null
    const table = what === 'table' && view.value ? tableInSight(view.value, title()) : null
    if (!picture && !table) return void toast.add({ severity: 'warn', summary: `There is no ${what} in sight to copy`, life: TOLD_MS })
    try {
      await (picture ? copyPicture(picture) : copyText(table!))
      toast.add({ severity: 'success', summary: `The ${what} is copied, with what it shows`, life: TOLD_MS })
    } catch {
      toast.add({ severity: 'warn', summary: `This browser does not let the ${what} be copied`, life: TOLD_MS })
    }
  }

  useActions(() => [
    { title: 'Copy the picture in sight', words: ['clipboard', 'share', 'figure', 'drawing', 'chart'], run: () => void copyInSight('picture') },
    { title: 'Copy the table in sight', words: ['clipboard', 'share', 'numbers', 'cells'], run: () => void copyInSight('table') },
    { title: 'Copy a link to this view', words: ['share', 'address', 'url', 'bookmark', 'crosshair', 'scenario'], run: () => void copyLink() },
  ])
}
