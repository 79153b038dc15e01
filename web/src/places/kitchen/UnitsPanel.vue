<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, type Problem, refusal, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useSession } from '@/shared/api/useSession'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import UnitFields, { type Units } from '@/shared/kitchen/UnitFields.vue'

/** The kitchen's name, units, currency and clock; and the demo, put away or brought back. */
const slug = useSlug()
const queries = useQueryClient()
const { load, may } = useSession()
const params = computed(() => ({ params: { path: { kitchen_slug: slug.value } } }))
const { data, error, refetch } = useKitchenQuery('units', '/units')
const demo = useKitchenQuery('demo', '/demo', () => ({}), { enabled: () => may('owner') })
const name = ref('')
const units = ref<Units | null>(null)
watch(
  data,
  (now) => {
    if (!now) return
    name.value = now.name
    units.value = {
      currency: now.currency,
      weight_unit: now.weight_unit,
      temperature_unit: now.temperature_unit,
      decimal_sign: now.decimal_sign,
      time_zone: now.time_zone,
      country: now.country ?? '',
    }
  },
  { immediate: true },
)
const problem = ref<Problem | null>(null)
const saved = ref(false)
provideFormFacts({ preview: ref(null), problem })

async function send(): Promise<void> {
  saved.value = false
  problem.value = await refusal(async () => {
    if (!units.value) return
    const body = { name: name.value, ...units.value }
    await take(api.PUT('/api/kitchens/{kitchen_slug}/units', { ...params.value, body }))
    await load()
    await queries.invalidateQueries()
    saved.value = true
  })
}
async function putDemo(is_away: boolean): Promise<void> {
  problem.value = await refusal(async () => {
    await take(api.PUT('/api/kitchens/{kitchen_slug}/demo', { ...params.value, body: { is_away } }))
    await demo.refetch()
    await load()
  })
}
</script>

<template>
  <LoadState v-if="!data || !units" :error="error" what="the units" @retry="refetch()" />
  <form v-else class="panel lines" novalidate @submit.prevent="send">
    <h2>Name, units and clock</h2>
    <TypedInput v-model="name" label="Name" path="name" />
    <UnitFields v-model="units" :fixed="data.is_currency_fixed" />
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="saved" class="good" role="status"><span aria-hidden="true">✓</span> Saved</p>
    <ActButton first submit>Save</ActButton>
    <template v-if="demo.data.value?.is_there">
      <h3>The demo</h3>
      <p class="quiet small">The made-up kitchen on this machine. Its records stay, also while it is away.</p>
      <ActButton @click="putDemo(!demo.data.value.is_away)">
        {{ demo.data.value.is_away ? 'Bring the demo back' : 'Put the demo away' }}
      </ActButton>
    </template>
  </form>
</template>

<style scoped>
form {
  max-width: 900px;
  margin-top: 12px;
}
</style>
