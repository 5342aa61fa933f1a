<script setup lang="ts">
/** Offers of shops for the part: price of the pack, how many are in it, delivery; cost of one piece. */
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { Schemas } from '@/api/client'
import { useRefusal } from '@/shared/useRefusal'
import { typedId, useTypedForm } from '@/shared/useTyped'
import type { BenchChanges } from '@/sample/useSheet'

const props = defineProps<{ sampleId: number; offers: readonly Schemas['OfferOut'][]; changes: BenchChanges }>()

const EMPTY = { shop: '', price: '', pack_of: '', delivery: '', seen: '' }
const typed = ref({ ...EMPTY })
const fields = Object.keys(EMPTY) as (keyof typeof EMPTY)[]
useTypedForm(() => typedId(props.sampleId, 'offer'), fields.map((name) => computed({ get: () => typed.value[name], set: (text) => (typed.value[name] = text) })))
const { refused, guarded } = useRefusal()
const first = useTemplateRef<HTMLInputElement>('first')
const unsaved = computed(() => Object.values(typed.value).some((text) => text.trim()))
/** The cheapest of each currency: what is asked in another one is not compared. */
const cheapest = computed(() => {
  const best = new Map<string, Schemas['OfferOut']>()
  for (const offer of props.offers) if (offer.each_amount < (best.get(offer.currency)?.each_amount ?? Infinity)) best.set(offer.currency, offer)
  return new Set([...best.values()].map((item) => item.id))
})

async function add() {
  if (!(await guarded(() => props.changes.addOffer(typed.value)))) return
  typed.value = { ...EMPTY }
  await nextTick()
  first.value?.focus()
}
</script>

<template>
  <section class="offers" data-key="offers">
    <h2>Offers of shops</h2>
    <table v-if="offers.length" class="wide small">
      <thead>
        <tr>
          <th scope="col">Shop</th>
          <th scope="col" class="number">Pack</th>
          <th scope="col" class="number">Pieces</th>
          <th scope="col" class="number">Delivery</th>
          <th scope="col" class="number">One piece</th>
          <th scope="col">Seen</th>
          <th scope="col"><span class="unseen">Remove</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in offers" :key="item.id" :data-offer="item.id">
          <th scope="row">{{ item.shop }}</th>
          <td class="number">{{ item.price }}</td>
          <td class="number">{{ item.pack_of }}</td>
          <td class="number">{{ item.delivery ?? 'not stated' }}</td>
          <td class="number"><strong v-if="cheapest.has(item.id)" title="the least in this currency">{{ item.each }}</strong><template v-else>{{ item.each }}</template></td>
          <td>{{ item.seen ?? '' }}</td>
          <td><button type="button" @click="guarded(() => changes.removeOffer(item.id))">Remove</button></td>
        </tr>
      </tbody>
    </table>
    <p v-if="offers.length" class="soft fine">One piece: pack and delivery of one pack over the pieces in it. Currencies are not converted.</p>
    <form data-stop :data-unsaved="unsaved ? 'offer' : undefined" @submit.prevent="add">
      <label class="small stack">shop <input ref="first" v-model="typed.shop" autocomplete="off" /></label>
      <label class="small stack">price <input v-model="typed.price" class="typed" placeholder="9.50 EUR" autocomplete="off" /></label>
      <label class="small stack">pack of <input v-model="typed.pack_of" class="typed" placeholder="1" inputmode="numeric" autocomplete="off" /></label>
      <label class="small stack">delivery <input v-model="typed.delivery" class="typed" placeholder="4.90" autocomplete="off" /></label>
      <label class="small stack">seen on <input v-model="typed.seen" class="typed" placeholder="3 Oct" autocomplete="off" /></label>
      <button type="submit">Save the offer</button>
    </form>
    <p v-if="refused" class="said-wrong" role="alert">{{ refused }}</p>
  </section>
</template>

<style scoped>
th,
td {
  text-align: left;
  padding: 0.15rem 1.2rem 0.15rem 0;
  border-top: 1px solid var(--line);
  font-weight: 400;
}
thead th {
  border-top: 0;
  font-size: var(--fine);
}
.fine {
  margin: 0.2rem 0;
}
form {
  display: grid;
  grid-template-columns: 2fr 1.2fr 0.7fr 1fr 1fr auto;
  gap: 0.5rem;
  align-items: end;
  margin-top: 0.3rem;
}
label {
  gap: 0.15rem;
}
input,
button {
  min-width: 0;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  padding: 0.25rem 0.5rem;
}
</style>
