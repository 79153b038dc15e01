<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DateBox from '@/shared/ui/DateBox.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { todayHere } from '@/shared/quantity/when'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { useDraft } from '@/shared/writing/useDraft'
import { type Sort, sortWords } from './usePrices'

/** A price to save, or the correction of a wrong one. */
const props = defineProps<{
  sort: Sort
  sources: string[]
  /** The line it is of, where it is known. */
  name?: string
  kind?: string
  /** The price that was wrong. */
  correcting?: Schemas['QuoteOut'] | null
}>()
const emit = defineEmits<{ noted: [notes: string[]]; close: [] }>()
type Body = Schemas['QuoteIn']
const queries = useQueryClient()
const { like, unit } = useUnits()
const today = todayHere()
/** What a correction takes over from the price that was wrong. */
function wrongOf(quote: Schemas['QuoteOut']): Partial<Body> {
  return {
    source: quote.source,
    on: quote.on,
    slices: quote.slices ? String(quote.slices) : '',
    solution: quote.solution ? String(Number(quote.solution)) : '',
    corrects: quote.id,
  }
}
const blank = (): Body => ({
  sort: props.sort,
  name: props.name ?? '',
  kind: props.kind ?? '',
  source: '',
  on: today,
  price: '',
  size: '',
  slices: '',
  solution: '',
  corrects: null,
  withdraw: false,
  reason: '',
  is_sure: false,
  ...(props.correcting ? wrongOf(props.correcting) : {}),
})
const { draft, clear } = useDraft<Body>(
  `price:${props.sort}:${props.name ?? ''}:${props.kind ?? ''}:${props.correcting?.id ?? ''}`,
  blank,
)
const said = ref<string[]>([])
const { state, problem, write, retry } = useKitchenWrite(
  `price:${props.correcting?.id ?? props.sort}`,
  '/prices',
  { typed: () => draft },
)
provideFormFacts({ preview: ref(null), problem })
const isShop = computed(() => props.sort === 'shop_pack')
const isMeat = computed(() => props.sort === 'meat')
const hint = computed(() =>
  isShop.value
    ? 'for the whole pack'
    : isMeat.value || props.sort === 'by_product'
      ? `bare: for a ${unit.value}; or 34.20 and the pack below`
      : 'like 1.20/kg or 0.36 each, or a sum and the pack below',
)

function send({ withdraw = false, is_sure = false } = {}): void {
  const body = { ...draft, withdraw, is_sure }
  if (withdraw && props.correcting) {
    const [price, size] = props.correcting.typed.split(' for ')
    Object.assign(body, { price: price ?? '', size: size ?? '' })
  }
  void write(body, (answer) => {
    said.value = answer.notes
    void queries.invalidateQueries({ queryKey: ['prices'] })
    void queries.invalidateQueries({ queryKey: ['case'] })
    const { source } = draft
    clear()
    if (!props.correcting) draft.source = source
    emit('noted', answer.notes)
  })
}
</script>

<template>
  <form v-may:cook class="note" novalidate @submit.prevent="send()">
    <h2>
      {{ correcting ? `Correct the price of ${correcting.on}` : `A price, ${sortWords[sort].toLowerCase()}` }}
    </h2>
    <div class="fields">
      <TypedInput v-if="!name" v-model="draft.name" label="What" path="name" placeholder="jowl, skin on" />
      <TypedInput
        v-if="isShop"
        v-model="draft.kind"
        label="Kind"
        path="kind"
        :suggestions="['cheap', 'good', 'best']"
        placeholder="good"
      />
      <TypedInput v-model="draft.price" label="Price" path="price" :hint="hint" placeholder="2.85" />
      <TypedInput
        v-model="draft.size"
        label="Pack size"
        path="size"
        :hint="isShop ? '' : 'leave empty if sold by weight'"
        :placeholder="isShop ? like('12 oz', '340 g') : like('12 lb', '5 kg')"
      />
      <TypedInput
        v-model="draft.source"
        label="Where"
        path="source"
        :suggestions="sources"
        placeholder="Quay butcher"
      />
      <div>
        <DateBox v-model="draft.on" class="day" label="On" :max="today" />
      </div>
      <TypedInput
        v-if="isShop"
        v-model="draft.slices"
        label="Slices in the pack"
        path="slices"
        placeholder="11"
        inputmode="numeric"
      />
      <TypedInput
        v-if="isShop || isMeat"
        v-model="draft.solution"
        label="Added water, up to %"
        path="solution"
        placeholder="12"
        inputmode="decimal"
      />
      <TypedInput v-if="correcting" v-model="draft.reason" label="What was wrong" path="reason" />
    </div>
    <p v-if="state === 'saved'" class="good" role="status">
      <span aria-hidden="true">✓</span> {{ said.length ? said.join(' ') : 'Saved.' }}
    </p>
    <SaveBar
      :word="correcting ? 'Save the correction' : 'Save this price'"
      :state="state"
      :problem="problem"
      cancel-word="Close"
      @retry="retry"
      @cancel="emit('close')"
    />
    <ActButton v-if="problem?.code === 'odd_price'" small @click="send({ is_sure: true })">
      Yes, that price is right: save it
    </ActButton>
    <ActButton v-if="correcting" small @click="send({ withdraw: true })">
      This price was never offered: remove it
    </ActButton>
  </form>
</template>

<style scoped>
.note {
  display: grid;
  gap: 10px;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
  gap: 8px 14px;
}
</style>
