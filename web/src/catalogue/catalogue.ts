/** The catalogues of the core: fetched once before the first view, since they do not change while the program runs. */
import { client, unwrap, type Schemas } from '@/api/client'

export type Catalogue = Schemas['CatalogueOut']
export type TermKind = keyof Catalogue['terms']
export type Detail = Schemas['DetailOut']

let held: Catalogue | null = null
let detailsByKey: ReadonlyMap<string, Detail> = new Map()
let quantitiesByKey: ReadonlyMap<string, Schemas['QuantityOut']> = new Map()
let observationsByKey: ReadonlyMap<string, Schemas['ObservationOut']> = new Map()

export function installCatalogue(fetched: Catalogue): void {
  held = fetched
  detailsByKey = new Map(fetched.details.map((detail) => [detail.key, detail]))
  quantitiesByKey = new Map(fetched.quantities.map((quantity) => [quantity.key, quantity]))
  observationsByKey = new Map(fetched.observations.map((observation) => [observation.key, observation]))
}

export function fetchCatalogue(): Promise<Catalogue> {
  return unwrap(client.GET('/api/catalogue'))
}

export function catalogue(): Catalogue {
  if (!held) throw new Error('the catalogue is not there yet')
  return held
}

export function details(): ReadonlyMap<string, Detail> {
  return detailsByKey
}

export function quantities(): ReadonlyMap<string, Schemas['QuantityOut']> {
  return quantitiesByKey
}

export function observations(): ReadonlyMap<string, Schemas['ObservationOut']> {
  return observationsByKey
}

/** Words by key, in the order they are listed. */
export function terms(kind: TermKind): Readonly<Record<string, string>> {
  return catalogue().terms[kind]
}

/** The word for a key; the key itself where there is none. */
export function term(kind: TermKind, key: string): string {
  return terms(kind)[key] ?? key
}
