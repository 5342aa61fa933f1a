/** The catalogues of the core: fetched once, they do not change while the program runs. */
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'

export type Catalogue = Schemas['CatalogueOut']

export function useCatalogue() {
  const query = useQuery({
    queryKey: ['catalogue'],
    queryFn: () => unwrap(client.GET('/api/catalogue')),
    staleTime: Infinity,
  })
  const details = computed(() => new Map((query.data.value?.details ?? []).map((detail) => [detail.key, detail])))
  const observations = computed(() => new Map((query.data.value?.observations ?? []).map((one) => [one.key, one])))
  return { query, details, observations }
}
