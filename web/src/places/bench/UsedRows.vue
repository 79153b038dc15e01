<script setup lang="ts">
import TypedInput from '@/shared/ui/TypedInput.vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import RemoveButton from './RemoveButton.vue'
import { type StepDraft, usualGroup } from './stepDraft'

/** What was used, each with an amount and a price, and the minutes of work. */
const draft = defineModel<StepDraft>('draft', { required: true })
const groups = [
  { value: 'cure' as const, word: 'Cure' },
  { value: 'fuel' as const, word: 'Fuel' },
  { value: 'packaging' as const, word: 'Packaging' },
  { value: 'other' as const, word: 'Other' },
]
const things = ['coarse salt', 'curing salt no. 1', 'sugar', 'pepper', 'wood', 'pellets', 'charcoal', 'bags']

function add(): void {
  draft.value.used.push({ what: '', group: usualGroup(draft.value.kind), amount: '', price: '' })
}
</script>

<template>
  <div class="lines">
    <h3 v-if="draft.used.length">Used</h3>
    <div v-for="(row, index) in draft.used" :key="index" class="row">
      <TypedInput v-model="row.what" label="What" :path="`used[${index}].what`" :suggestions="things" />
      <TypedInput v-model="row.amount" label="How much" :path="`used[${index}].amount`" placeholder="95 g" />
      <RemoveButton :label="`Remove ${row.what || 'this line'}`" @remove="draft.used.splice(index, 1)" />
      <TypedInput
        v-model="row.price"
        class="price"
        label="Price, or the sum for all of it"
        :path="`used[${index}].price`"
        placeholder="1.20/kg, 5.00 for 8 oz, or 0.40"
      />
      <ChoiceBar v-model="row.group" class="group" label="Counts as" :choices="groups" />
    </div>
    <div class="last">
      <TypedInput
        v-model="draft.minutes"
        label="Minutes of work"
        path="minutes"
        placeholder="20"
        inputmode="decimal"
      />
      <button type="button" class="act" @click="add">+ something used</button>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 0.7fr) 36px;
  gap: 2px 8px;
  width: 100%;
  border-left: 3px solid var(--edge);
  padding-left: 10px;
}

.price,
.group {
  grid-column: 1 / -1;
}

.last {
  display: grid;
  grid-template-columns: 130px auto;
  gap: 12px;
  align-items: center;
  justify-content: start;
}
</style>
