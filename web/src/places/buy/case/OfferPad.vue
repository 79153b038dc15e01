<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { computed, ref, watch } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { newKey } from '@/shared/writing/newKey'
import { useDraft } from '@/shared/writing/useDraft'
import ChipRow from './ChipRow.vue'
import { blankOffer, dropDigit, type Offer, pushDigit } from './offerDraft'
import PadKeys from './PadKeys.vue'
import TagWords from './TagWords.vue'
import type { Schemas } from '@/shared/api/client'

/** A tag read with one hand: cut, form, price on the pad, then the next one. */
const props = defineProps<{ offer: Offer | null; listed: Schemas['ListedOut'][] }>()
const emit = defineEmits<{ done: [offer: Offer, next: boolean]; close: [] }>()
const { sign, unit, unitWord } = useUnits()
const basis = computed<Offer['basis']>(() => (unit.value === 'lb' ? 'per_lb' : 'per_kg'))
/** A tag half read is still there after a reload. */
const { draft, clear } = useDraft(`tag:${props.offer?.id ?? ''}`, () => ({
  tag: props.offer ? { ...props.offer } : { ...blankOffer(basis.value), id: 'new' },
}))
const tag = computed<Offer>({
  get: () => draft.tag,
  set: (to) => (draft.tag = to),
})
/** The pad writes into the price, or into the weight of the pack. */
const field = ref<'price' | 'weight'>('price')
const weight = ref(tag.value.pack_weight.replace(/[^0-9.]/g, ''))
const weightUnit = ref(/[a-z]+/.exec(tag.value.pack_weight)?.[0] ?? unit.value)
const said = ref('')

const bases = computed(() => [
  { value: basis.value, word: `a ${unitWord.value}` },
  { value: 'pack' as const, word: 'the pack' },
])
watch(
  [weight, weightUnit],
  () => (tag.value.pack_weight = weight.value ? `${weight.value} ${weightUnit.value}` : ''),
)
watch(
  () => [tag.value.price, tag.value.basis, tag.value.pack_weight],
  () => (tag.value.is_sure = false),
)
watch(
  () => tag.value.basis,
  (now) => now === 'pack' && tag.value.price && !weight.value && (field.value = 'weight'),
)

function press(digit: string): void {
  if (field.value === 'price') tag.value.price = pushDigit(tag.value.price, digit)
  else weight.value = pushDigit(weight.value, digit)
}
function back(): void {
  if (field.value === 'price') tag.value.price = dropDigit(tag.value.price)
  else weight.value = dropDigit(weight.value)
}

function done(next: boolean): void {
  if (!tag.value.cut || !tag.value.price) {
    said.value = tag.value.cut ? 'Enter the price.' : 'Choose the cut.'
    return
  }
  said.value = ''
  const isNew = tag.value.id === 'new'
  emit('done', { ...tag.value, ...(isNew ? { id: newKey().slice(0, 8) } : {}) }, next)
  const { basis: kept } = tag.value
  clear()
  if (!next) return
  tag.value.basis = kept
  weight.value = ''
  field.value = 'price'
}

function fromList(one: Schemas['ListedOut']): void {
  const { cut, price, solution } = one
  Object.assign(tag.value, { cut, price, solution, basis: 'per_lb' })
  const [amount, word] = one.pack_weight.split(' ')
  weight.value = amount ?? ''
  weightUnit.value = word ?? unit.value
}
</script>

<template>
  <form class="pad" aria-label="An offer" novalidate @submit.prevent="done(true)">
    <TagWords v-model:offer="tag" :listed="listed" @listed="fromList" />
    <div class="price">
      <div class="fields">
        <TypedInput
          v-model="tag.price"
          :class="{ here: field === 'price' }"
          :label="`Price, ${sign}`"
          inputmode="none"
          autocomplete="off"
          maxlength="12"
          placeholder="0.00"
          @focus="field = 'price'"
        />
        <TypedInput
          v-model="weight"
          :class="{ here: field === 'weight' }"
          :label="`Pack weighs, ${weightUnit}`"
          inputmode="none"
          autocomplete="off"
          maxlength="12"
          placeholder="by weight"
          @focus="field = 'weight'"
        />
      </div>
      <ChipRow v-model="tag.basis" label="The price is for" :choices="bases" />
      <PadKeys @digit="press" @back="back" />
      <p v-if="said" class="said" role="alert">{{ said }}</p>
      <div class="buttons">
        <ActButton first submit>
          {{ props.offer ? 'Save' : 'Add, next tag' }}
        </ActButton>
        <ActButton @click="done(false)">
          {{ props.offer ? 'Save and close' : 'Add, done' }}
        </ActButton>
        <ActButton @click="emit('close')">Close</ActButton>
      </div>
    </div>
  </form>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  gap: 12px 24px;
}

.price {
  display: grid;
  gap: 8px;
  align-content: start;
}

.fields,
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.fields span {
  font-size: 13px;
  color: var(--quiet);
}

.buttons .first {
  flex: 1 1 130px;
}

.buttons .act {
  padding: 0 12px;
}

.said {
  color: var(--rose-deep);
  font-weight: 600;
}

@media (max-width: 979px) {
  .pad {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
