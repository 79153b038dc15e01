<script setup lang="ts">
import DateBox from '@/shared/ui/DateBox.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { momentTyped } from '@/shared/quantity/when'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Schemas, take } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSession } from '@/shared/api/useSession'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import { capital } from '@/shared/quantity/capital'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { useDraft } from '@/shared/writing/useDraft'
import { usePreview } from '@/shared/writing/usePreview'
import { blankBought, boughtContent, type BoughtDraft } from '@/shared/parts/boughtDraft'
import BoughtFields from '@/shared/parts/BoughtFields.vue'
import { type Course, courses } from '@/shared/parts/courseWords'
import ExtraRows from '@/shared/parts/ExtraRows.vue'
import SourceFields from '@/shared/parts/SourceFields.vue'

type Body = Schemas['StartIn']
const router = useRouter()
const queries = useQueryClient()
const { kitchen } = useSession()
const { costText, otherCostText, money, unitWord, isMetric } = useUnits()
const slug = computed(() => kitchen.value?.slug ?? '')
const form = ref<HTMLFormElement | null>(null)

const { draft, clear } = useDraft<{ name: string; when: string; course: Course | ''; bought: BoughtDraft }>(
  'start',
  () => ({
    name: '',
    when: '',
    course: '',
    bought: blankBought(isMetric.value ? 'per_kg' : 'per_lb'),
  }),
)
const way = ref<'bought' | 'batch'>(draft.bought.from_batch ? 'batch' : 'bought')
const linked = computed(() => way.value === 'batch')
const ways = [
  { value: 'bought' as const, word: 'Bought' },
  { value: 'batch' as const, word: 'From another batch' },
]
const becomes = [...courses, { value: '' as const, word: 'Not decided' }]
/** A batch nobody named goes by its cut. */
const ownName = computed(() => (linked.value ? '' : capital(draft.bought.cut.trim())))
const body = computed<Body>(() => ({
  name: draft.name || ownName.value,
  course: draft.course,
  happened_at: draft.when ? momentTyped(draft.when) : null,
  bought: boughtContent(linked.value ? draft.bought : { ...draft.bought, from_batch: '' }),
}))
const { preview } = usePreview('start', body, (now) =>
  take(
    api.POST('/api/kitchens/{kitchen_slug}/previews/batches', {
      params: { path: { kitchen_slug: slug.value } },
      body: now,
    }),
  ),
)
const { state, problem, write, retry } = useKitchenWrite('start', '/batches', { typed: () => draft })
provideFormFacts({ preview, problem })
const whenFault = computed(() => problem.value?.fields?.find((one) => one.path === 'happened_at')?.message)
watch(problem, async () => {
  await nextTick()
  form.value?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus()
})
const price = computed(() => preview.value?.bought_cost ?? null)
const priceNote = computed(() =>
  price.value ? `${costText(price.value)} a ${unitWord.value} · ${otherCostText(price.value)}` : '',
)

function send(): void {
  void write(body.value, ({ batch }) => {
    clear()
    queries.setQueryData(['batch', slug.value, batch.code], batch)
    renewShown(queries)
    void router.push({ name: 'log', params: { code: batch.code } })
  })
}
</script>

<template>
  <div class="head"><h1>Start a batch</h1></div>
  <div class="start">
    <form ref="form" v-may:cook class="panel" novalidate @submit.prevent="send">
      <ChoiceBar v-model="way" label="The meat was" :choices="ways" />
      <TypedInput
        v-model="draft.name"
        label="Name of the batch"
        path="name"
        :placeholder="ownName || 'Rosemary lamb belly'"
        hint="the cut, if you leave this empty"
      />
      <h2>Bought</h2>
      <SourceFields v-if="linked" v-model:draft="draft.bought" stem="bought." without="" />
      <template v-else>
        <BoughtFields v-model:draft="draft.bought" stem="bought." :price-note="priceNote" />
        <ExtraRows v-model:draft="draft.bought" stem="bought." />
      </template>
      <ChoiceBar v-model="draft.course" label="It becomes" :choices="becomes" />
      <DateBox v-model="draft.when" label="Bought on, if not today" kind="datetime-local" />
      <p v-if="whenFault" class="care" role="alert">{{ whenFault }}</p>
      <SaveBar word="Start the batch" :state="state" :problem="problem" @retry="retry" />
    </form>
    <section class="panel tag" aria-live="polite" aria-label="Price as purchased">
      <p class="quiet small">Price of a {{ unitWord }}, as bought</p>
      <template v-if="price">
        <p class="big">{{ costText(price) }}</p>
        <p>{{ otherCostText(price) }}</p>
        <p class="quiet">{{ money(preview?.paid) }} paid in all</p>
      </template>
      <p v-else class="quiet">Type a weight and a price to see it in both units.</p>
      <p class="quiet small">
        This is not the price of a sliced {{ unitWord }} yet. That is known after trim, cure, smoke and
        slicing.
      </p>
    </section>
  </div>
</template>

<style scoped>
.start {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 16px;
  align-items: start;
}

form,
.tag {
  display: grid;
  gap: 10px;
}

.big {
  font-size: 46px;
  font-weight: 800;
  font-stretch: 110%;
  line-height: 1;
}

@media (max-width: 859px) {
  .start {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
