<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useOffcuts } from '@/shared/api/useBench'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { computed } from 'vue'
import { colourOf } from '@/shared/strip/materials'
import RemoveButton from '@/shared/ui/RemoveButton.vue'
import { type Material, offcuts, type StepDraft, type Worth } from './stepDraft'

/** What came off, each by name and weight, and what it is worth. */
const draft = defineModel<StepDraft>('draft', { required: true })
const { like, unit, unitWord } = useUnits()
const usual = computed(() => offcuts[draft.value.kind] ?? [])
const { data: known } = useOffcuts()
const worths: { value: Worth; word: string }[] = [
  { value: 'nothing', word: 'Nothing' },
  { value: 'price', word: 'A price' },
  { value: 'as_main', word: 'As the meat' },
]

function add(name: string, material: Material): void {
  // worth what it was worth the last time, until said otherwise
  const last = known.value?.find((one) => one.name === name)
  const { worth, price } = last ?? { worth: 'nothing' as const, price: '' }
  draft.value.cutOff.push({ mark: '', name, material, weight: '', worth, price })
}
</script>

<template>
  <div class="lines">
    <h3>What came off</h3>
    <div v-for="(row, index) in draft.cutOff" :key="index" class="row">
      <i :style="{ background: colourOf(row.material) }" aria-hidden="true"></i>
      <TypedInput v-model="row.name" label="What" :path="`cut_off[${index}].name`" />
      <TypedInput
        v-model="row.weight"
        label="Weight"
        :path="`cut_off[${index}].weight`"
        :placeholder="like('12 oz', '340 g')"
      />
      <RemoveButton :label="`Remove ${row.name || 'this line'}`" @remove="draft.cutOff.splice(index, 1)" />
      <div class="worth">
        <ChoiceBar v-model="row.worth" :label="`${row.name || 'It'} is worth`" :choices="worths" />
        <TypedInput
          v-if="row.worth === 'price'"
          v-model="row.price"
          :label="`Price of a ${unitWord}`"
          :path="`cut_off[${index}].price`"
          :placeholder="`2.40/${unit}`"
        />
      </div>
    </div>
    <div class="adds">
      <ActButton v-for="one in usual" :key="one.name" small @click="add(one.name, one.material)">
        + {{ one.name }}
      </ActButton>
      <ActButton small @click="add('', 'other')">+ add another</ActButton>
    </div>
  </div>
</template>

<style scoped>
.row {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 36px;
  gap: 4px 8px;
  padding-left: 14px;
}

.row i {
  position: absolute;
  inset: 4px auto 4px 0;
  width: 6px;
  border-radius: 2px;
}

.worth {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: start;
}

.worth > :last-child:not(:first-child) {
  flex: 1 1 110px;
}

.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
