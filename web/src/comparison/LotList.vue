<script setup lang="ts">
/** Changes from lot to lot of each part number: every specimen in the database against the one made before it. */
import { useQuery } from '@tanstack/vue-query'
import { computed, toRef } from 'vue'
import { client, unwrap, type Schemas } from '@/api/client'
import { queryKeys } from '@/api/queryKeys'
import { usePreferences } from '@/shared/preferences'

const props = defineProps<{ studyId: number }>()
const preferences = usePreferences()
const lots = useQuery({
  queryKey: queryKeys.lots(toRef(props, 'studyId')),
  queryFn: () => unwrap(client.GET('/api/studies/{study_id}/lots', { params: { path: { study_id: props.studyId } } })),
  retry: false,
})
const changed = (pair: Schemas['PairOut']) => pair.findings.filter((finding) => finding.finding === 'different')
const numbers = computed(() => lots.data.value ?? [])
const shown = (side: Schemas['InBothOut'] | null) => side?.[preferences.family] ?? 'not looked at'
</script>

<template>
  <section v-if="numbers.length" class="lots fine" aria-label="From lot to lot">
    <h2 class="small">From lot to lot</h2>
    <div v-for="number in numbers" :key="number.maker + number.part_number" :data-lots="number.part_number">
      <p>{{ number.maker }} {{ number.part_number }}: {{ number.specimens.length }} specimens, in the order they were made</p>
      <ol class="bullets">
        <li v-for="(specimen, i) in number.specimens" :key="specimen.sample_id">
          {{ specimen.label }} <span class="soft">{{ specimen.study_name }}, {{ specimen.made ? `made ${specimen.made}` : 'date not known' }}</span>
          <template v-if="i">
            <span v-if="!changed(number.pairs[i - 1]!).length" class="soft"> · nothing found changed</span>
            <ul v-else class="bullets">
              <li v-for="finding in changed(number.pairs[i - 1]!)" :key="finding.key">{{ finding.part }} {{ finding.title }}: {{ shown(finding.of_first) }} → {{ shown(finding.of_second) }}</li>
            </ul>
          </template>
        </li>
      </ol>
    </div>
  </section>
</template>

<style scoped>
.lots {
  margin: 0.6rem 0.3rem;
}
h2 {
  margin: 0 0 0.2rem;
}
p {
  margin: 0.2rem 0;
}
</style>
