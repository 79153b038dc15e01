<script setup lang="ts">
import TickBox from '@/shared/ui/TickBox.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, type Settings, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useSession } from '@/shared/api/useSession'
import LoadState from '@/shared/ui/LoadState.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import PolicyFields from '@/shared/ui/PolicyFields.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { useDraft } from '@/shared/writing/useDraft'
import { useWrite } from '@/shared/writing/useWrite'
import UnitsPanel from './UnitsPanel.vue'

/** The kitchen: what it counts, the scale it weighs on, and how many slabs fit. */
const slug = useSlug()
const { kitchen, may } = useSession()
const queries = useQueryClient()
const params = computed(() => ({ path: { kitchen_slug: slug.value } }))
const { data, error, refetch, put } = useKitchenQuery('settings', '/settings')
const empty = {
  labour_rate: '',
  by_products: true,
  fuel: true,
  packaging: true,
  overhead: true,
  scale: '',
  fridge: '',
  smoker: '',
  helpers_see_money: true,
}
/** What is saved, as it is typed; a draft that differs from it is the cook's and stays. */
let known = { ...empty }
const { draft } = useDraft('settings', () => known)
watch(
  data,
  (now) => {
    if (!now) return
    const isTyped = JSON.stringify({ ...draft }) !== JSON.stringify(known)
    const { fridge_slabs, smoker_slabs, ...rest } = now
    known = { ...empty, ...rest, fridge: String(fridge_slabs ?? ''), smoker: String(smoker_slabs ?? '') }
    if (!isTyped) Object.assign(draft, known)
  },
  { immediate: true },
)
const body = computed<Settings>(() => {
  const { fridge, smoker, ...rest } = draft
  return { ...rest, fridge_slabs: slabs(fridge), smoker_slabs: slabs(smoker) }
})
/** A number that is none is sent as it is, to be refused with its place. */
const slabs = (typed: string): number | null => (typed.trim() === '' ? null : Number(typed))
const saved = ref(false)
const { state, problem, write, retry } = useWrite<Settings, Settings>('settings', (sent) =>
  take(api.PUT('/api/kitchens/{kitchen_slug}/settings', { params: params.value, body: sent })),
)
provideFormFacts({ preview: ref(null), problem })
const send = (): void =>
  void write(body.value, (now) => {
    known = { ...draft }
    put(now)
    void queries.invalidateQueries({ queryKey: ['verdict'] })
    saved.value = true
  })
</script>

<template>
  <div class="head">
    <h1>{{ kitchen?.name }}</h1>
  </div>
  <LoadState v-if="!data" :error="error" what="the kitchen" @retry="refetch()" />
  <form v-else class="panel kitchen" novalidate @submit.prevent="send">
    <section>
      <h2>What is counted</h2>
      <p class="quiet small">Applies to batches started from now on; earlier ones keep theirs.</p>
      <PolicyFields :policy="draft" />
    </section>
    <section>
      <h2>Scale and room</h2>
      <TypedInput
        v-model="draft.scale"
        label="Scale reads in steps of"
        path="scale"
        hint="used to say when two prices are too close for the scale"
        placeholder="5 g"
      />
      <TypedInput
        v-model="draft.fridge"
        label="Slabs that fit in the fridge"
        path="fridge_slabs"
        placeholder="6"
        inputmode="numeric"
      />
      <TypedInput
        v-model="draft.smoker"
        label="Slabs that fit in the smoker"
        path="smoker_slabs"
        placeholder="4"
        inputmode="numeric"
      />
    </section>
    <section>
      <h2>Helpers</h2>
      <TickBox v-model="draft.helpers_see_money">Helpers see prices and costs</TickBox>
    </section>
    <p v-if="saved && state === 'saved'" class="good" role="status">
      <span aria-hidden="true">✓</span> Saved
    </p>
    <SaveBar v-if="may('owner')" word="Save" :state="state" :problem="problem" @retry="retry" />
    <p v-else class="quiet">Owners of the kitchen change these.</p>
  </form>
  <section class="panel elsewhere" aria-label="Kept elsewhere">
    <h2>Kept elsewhere</h2>
    <ul>
      <li><RouterLink :to="{ name: 'map' }">Fridges, racks and freezers</RouterLink>: added on the map</li>
      <li><RouterLink :to="{ name: 'ways' }">Methods</RouterLink>: what each uses and loses</li>
      <li>
        <RouterLink :to="{ name: 'figures' }">Nitrite limits and spoon weights</RouterLink>: those of the
        local authority go here
      </li>
      <li>
        <RouterLink :to="{ name: 'bench' }">Labels</RouterLink>: at each batch, in its diary; of packs, in the
        <RouterLink :to="{ name: 'slice' }">larder</RouterLink>
      </li>
      <li v-if="may('owner')">
        <RouterLink :to="{ name: 'people' }">People</RouterLink>: invite someone, or take them out
      </li>
    </ul>
  </section>
  <UnitsPanel v-if="may('owner')" />
</template>

<style scoped>
.kitchen {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(300px, 100%), 1fr));
  gap: 16px 32px;
  max-width: 900px;
}

section {
  display: grid;
  gap: 6px;
  align-content: start;
}

.elsewhere {
  max-width: 900px;
  margin-top: 16px;
}

.elsewhere a {
  display: inline-block;
  min-height: 32px;
  padding: 5px 0;
}

.kitchen > :not(section) {
  grid-column: 1 / -1;
}
</style>
