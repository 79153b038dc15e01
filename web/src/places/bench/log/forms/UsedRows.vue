<script setup lang="ts" generic="T extends UsedDraft & { kind: string }">
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import TypedInput from '@/shared/ui/TypedInput.vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import RemoveButton from '@/shared/ui/RemoveButton.vue'
import { type UsedDraft, usualGroup } from './usedDraft'

/** What was used, each with an amount and a price, for all pieces of the step or some; work; overhead. */
defineProps<{
  /** The pieces of the step, where a line may be for some of them only. */
  marks: string[]
}>()
const draft = defineModel<T>('draft', { required: true })
const { like } = useUnits()
const groups = [
  { value: 'cure', word: 'Cure' },
  { value: 'fuel', word: 'Fuel' },
  { value: 'packaging', word: 'Packaging' },
  { value: 'other', word: 'Other' },
]
const things = ['coarse salt', 'curing salt no. 1', 'sugar', 'pepper', 'wood', 'pellets', 'charcoal', 'bags']

function add(): void {
  draft.value.used.push({ what: '', group: usualGroup(draft.value.kind), amount: '', price: '', pieces: [] })
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
        :placeholder="like('1.20/kg, 5.00 for 8 oz, or 0.40', '1.20/kg, 5.00 for 250 g, or 0.40')"
      />
      <ChoiceBar v-model="row.group" class="group" label="Counts as" :choices="groups" />
      <fieldset v-if="marks.length > 1" class="group">
        <legend>Only for (none checked: all)</legend>
        <TickBox v-for="mark in marks" :key="mark" v-model="row.pieces" :value="mark">{{ mark }}</TickBox>
      </fieldset>
    </div>
    <div class="last">
      <TypedInput
        v-model="draft.minutes"
        label="Minutes of work"
        path="minutes"
        placeholder="20"
        inputmode="decimal"
      />
      <ActButton @click="add">+ add something used</ActButton>
    </div>
    <FoldAway :open="Boolean(draft.overhead || draft.scale)" word="More: overhead, scale used">
      <div class="pair">
        <TypedInput
          v-model="draft.overhead"
          label="Overhead for this step"
          path="overhead"
          placeholder="2.00"
          inputmode="decimal"
        />
        <TypedInput
          v-model="draft.scale"
          label="Scale reads in steps of"
          path="scale"
          hint="leave empty for the kitchen’s scale"
          placeholder="5 g"
        />
      </div>
    </FoldAway>
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

fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
}

legend {
  font-weight: 600;
  font-size: 14px;
  padding: 0;
}

.last {
  display: grid;
  grid-template-columns: 130px auto;
  gap: 12px;
  align-items: center;
  justify-content: start;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
