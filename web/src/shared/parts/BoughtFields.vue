<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import type { BoughtDraft } from './boughtDraft'

/** Meat as purchased: cut, weights, price. */
const props = defineProps<{
  stem: string
  /** What the price comes to, as one types. */
  priceNote?: string
}>()
const draft = defineModel<BoughtDraft>('draft', { required: true })
const at = (name: string): string => `${props.stem}${name}`
const { isMetric, like } = useUnits()
type Basis = { value: BoughtDraft['price_basis']; word: string }
const pound: Basis = { value: 'per_lb', word: 'A pound' }
const kilogram: Basis = { value: 'per_kg', word: 'A kilogram' }
/** The kitchen's own unit first. */
const bases = computed<Basis[]>(() => [
  ...(isMetric.value ? [kilogram, pound] : [pound, kilogram]),
  { value: 'pack', word: 'The pack' },
])
const cuts = [
  'belly, skin on',
  'jowl, skin on',
  'loin, boneless',
  'shoulder, bone in',
  'whole brisket',
  'leg of lamb',
  'breast of lamb, bone in',
  'goose breast, boneless',
  'duck breast',
]
</script>

<template>
  <div class="fields">
    <TypedInput
      v-model="draft.cut"
      label="Cut"
      :path="at('cut')"
      :suggestions="cuts"
      placeholder="jowl, skin on"
    />
    <TypedInput
      v-model="draft.bought_from"
      label="Bought from"
      :path="at('bought_from')"
      placeholder="Quay butcher"
      hint="the books compare whose meat keeps best"
    />
    <div class="pair">
      <TypedInput
        v-model="draft.label_weight"
        label="Weight on the label"
        :path="at('label_weight')"
        :placeholder="like('24.3 lb', '11.02 kg')"
        :hint="like('lb, lb and oz, oz, kg or g', 'kg or g; lb and oz work too')"
      />
      <TypedInput
        v-model="draft.own_weight"
        label="Weight on our scale"
        :path="at('own_weight')"
        :placeholder="like('24 lb', '10.89 kg')"
        hint="costs use this weight if you enter it"
      />
    </div>
    <div class="pair">
      <ChoiceBar v-model="draft.price_basis" label="The price is for" :choices="bases" />
      <TypedInput
        v-model="draft.price"
        label="Price"
        :path="at('price')"
        :hint="priceNote"
        :placeholder="like('2.85', '6.28')"
        inputmode="decimal"
      />
    </div>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 8px;
}

.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 8px 14px;
}
</style>
