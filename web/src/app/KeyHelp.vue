<script setup lang="ts">
/** The keys that work in this view, and the glossary. */
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import { catalogue } from '@/catalogue/catalogue'
import { useHelp } from '@/shared/help'
import SwitchButtons from '@/shared/SwitchButtons.vue'
import { usePreferences } from '@/shared/preferences'
import { activeKeys, singleKeys } from '@/shared/useKeys'

const help = useHelp()
const preferences = usePreferences()
/** Only what works here: no single keys at the bench, or while they are switched off. */
const rows = computed(() => {
  const single = !singleKeys.atBench && !singleKeys.switchedOff
  return [...activeKeys].reverse().flat().filter((action) => single || !action.single)
})
const TABS = [
  { label: 'Keys in this view', value: 'keys' },
  { label: 'Glossary', value: 'glossary' },
] as const
const terms = computed(() => {
  const wanted = help.term.trim().toLowerCase()
  return catalogue().glossary.filter((item) => `${item.term} ${item.meaning}`.toLowerCase().includes(wanted))
})
</script>

<template>
  <Dialog v-model:visible="help.open" header="Help" modal dismissable-mask :style="{ width: '38rem', height: '80vh' }">
    <SwitchButtons v-model="help.tab" :options="TABS" label="Kind of help" small />
    <label v-if="help.tab === 'keys'" class="single small">
      <input v-model="preferences.singleKeys" type="checkbox" />
      single keys are commands at maps and tables; at the bench they never are
    </label>
    <dl v-if="help.tab === 'keys'" class="keys">
      <template v-for="action in rows" :key="action.keys">
        <dt>
          <kbd>{{ action.keys }}</kbd>
        </dt>
        <dd>{{ action.does }}</dd>
      </template>
    </dl>
    <template v-else>
      <InputText v-model="help.term" autofocus class="find wide" size="small" aria-label="Find a term" placeholder="find a term" />
      <p v-if="!terms.length" class="soft">No term with these words.</p>
      <dl class="terms">
        <template v-for="term in terms" :key="term.term">
          <dt>{{ term.term }}</dt>
          <dd>
            {{ term.meaning }}
            <span v-if="term.unit || term.standard" class="soft">{{ [term.unit, term.standard].filter(Boolean).join(' · ') }}</span>
          </dd>
        </template>
      </dl>
    </template>
  </Dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 0.4rem 1rem;
  margin: 0.8rem 0 0;
}
.terms {
  grid-template-columns: 11rem 1fr;
}
.terms dt {
  font-weight: 600;
}
.single {
  display: block;
  margin-top: 0.8rem;
}
.find {
  display: block;
  margin-top: 0.8rem;
}
</style>
