<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import RemoveButton from '@/shared/ui/RemoveButton.vue'
import type { Cutting } from './useBoard'

/** What the slicing left beside packs: ends and skin with their worth, loose slices, work and bags. */
const draft = defineModel<Cutting>('draft', { required: true })
const { like, unitWord, unit, sign } = useUnits()
const worths: { value: 'nothing' | 'price' | 'as_main'; word: string }[] = [
  { value: 'nothing', word: 'Nothing' },
  { value: 'price', word: 'A price' },
  { value: 'as_main', word: 'As the meat' },
]
const add = (name: string): void => {
  draft.value.cutOff.push({ name, weight: '', worth: 'nothing', price: '' })
}
</script>

<template>
  <h2>Finish this piece</h2>
  <div v-for="(one, at) in draft.cutOff" :key="at" class="off">
    <TypedInput v-model="one.name" label="What came off" maxlength="40" />
    <TypedInput v-model="one.weight" label="Weight" :placeholder="like('0.3 lb', '0.14 kg')" />
    <RemoveButton :label="`Remove ${one.name}`" @remove="draft.cutOff.splice(at, 1)" />
    <ChoiceBar v-model="one.worth" class="wide" :label="`${one.name || 'It'} is worth`" :choices="worths" />
    <TypedInput
      v-if="one.worth === 'price'"
      v-model="one.price"
      class="wide"
      :label="`Price of a ${unitWord}`"
      :placeholder="`2.40/${unit}`"
    />
  </div>
  <div class="adds">
    <ActButton
      v-for="name in ['ends', 'skin', 'dark edge', 'silver skin', 'fat cap', 'pieces']"
      :key="name"
      small
      @click="add(name)"
    >
      + {{ name }}
    </ActButton>
  </div>
  <div v-for="(one, at) in draft.products" :key="one.mark" class="whole">
    <TypedInput
      v-model="one.weight"
      :label="`${draft.products.length > 1 ? one.name : 'All slices'} weigh`"
      placeholder="as its packs"
      :aria-label="`Weight of all of product ${at + 1}`"
    />
    <TypedInput
      v-if="one.form === 'slices'"
      v-model="one.slices"
      label="Number of slices"
      inputmode="numeric"
      placeholder="as in its packs"
    />
  </div>
  <div class="whole">
    <TypedInput v-model="draft.minutes" label="Minutes of work" inputmode="decimal" />
    <TypedInput
      v-model="draft.bagPrice"
      :label="`A bag costs (${sign.trim()})`"
      inputmode="decimal"
      placeholder="0.35"
    />
  </div>
</template>

<style scoped>
.off,
.whole {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 8px;
  align-items: end;
}

.whole {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}

.wide {
  grid-column: 1 / -1;
}

.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
