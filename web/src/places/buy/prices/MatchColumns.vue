<script setup lang="ts">
import DateBox from '@/shared/ui/DateBox.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import ColumnTable from '@/shared/upload/ColumnTable.vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import { sorts } from './usePrices'

/** Which column is what, over the first rows of the list; and what stands for columns that are not there. */
const props = defineProps<{ list: Schemas['FileOut']; decimal: string }>()
type Match = Schemas['MatchIn']
const match = defineModel<Match>('match', { required: true })
const targets = [
  ['name', 'what it is'],
  ['price', 'the price'],
  ['size', 'the pack size'],
  ['unit', 'the unit'],
  ['day', 'the day'],
  ['sort', 'the kind'],
  ['kind', 'the shop pack'],
  ['slices', 'slices'],
  ['solution', 'water, %'],
] as const
type Target = (typeof targets)[number][0]
const columns = computed(() => match.value.columns as Partial<Record<Target, number>>)
const has = (target: Target): boolean => columns.value[target] !== undefined

function take(found: Partial<Record<Target, number>>): void {
  match.value = { ...match.value, columns: found as Match['columns'] }
}
/** Whole money or cents; where nobody said, it is asked if they look like cents. */
const moneys = [
  { value: 'whole' as const, word: 'whole money: 3.49' },
  { value: 'cents' as const, word: 'cents: 349' },
]
const cents = computed({
  get: () => (match.value.is_in_cents ? ('cents' as const) : ('whole' as const)),
  set: (to) => (match.value = { ...match.value, is_in_cents: to === 'cents' }),
})
const decimalWord = computed(() => (props.decimal === '.' ? 'a point: 3.49' : 'a comma: 3,49'))
</script>

<template>
  <ColumnTable
    :heads="list.heads"
    :first="list.first"
    :targets="targets"
    :columns="columns"
    @update:columns="take"
  />
  <div class="rest">
    <SelectBox v-if="!has('sort')" v-model="match.sort" label="All of it is">
      <option v-for="sort in sorts" :key="sort.value" :value="sort.value">
        {{ sort.word.toLowerCase() }}
      </option>
    </SelectBox>
    <SelectBox v-if="!has('unit')" v-model="match.per" label="A price alone is for">
      <option value="">what the pack size says</option>
      <option value="lb">a pound</option>
      <option value="kg">a kilogram</option>
      <option value="each">each</option>
    </SelectBox>
    <SelectBox v-model="match.decimal" label="Decimal sign">
      <option value="">automatic ({{ decimalWord }})</option>
      <option value=".">a point: 3.49</option>
      <option value=",">a comma: 3,49</option>
    </SelectBox>
    <ChoiceBar v-model="cents" label="The prices are in" :choices="moneys" />
    <DateBox v-if="!has('day')" v-model="match.on" label="The prices are from" />
    <SelectBox v-else v-model="match.day_first" label="03/04/2026 means">
      <option :value="true">3 April</option>
      <option :value="false">4 March</option>
    </SelectBox>
  </div>
</template>

<style scoped>
.rest {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
</style>
