<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import { computed } from 'vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'

import { countries, currencies, zones } from './regions'

/** A kitchen's units, currency and clock. */
export type Units = {
  currency: string
  weight_unit: 'lb' | 'kg'
  temperature_unit: 'F' | 'C'
  decimal_sign: '.' | ','
  time_zone: string
  country: string
}
const units = defineModel<Units>({ required: true })
/** `without`: the country is asked elsewhere. */
const props = defineProps<{ fixed?: boolean; without?: boolean }>()
const money = computed(() =>
  [...new Set([...currencies, units.value.currency])].sort().map((value) => ({ value, word: value })),
)
const clocks = [
  { value: '', word: 'that of the first device' },
  ...zones().map((value) => ({ value, word: value.replaceAll('_', ' ') })),
]
const weights = [
  { value: 'lb' as const, word: 'Pounds' },
  { value: 'kg' as const, word: 'Kilograms' },
]
const degrees = [
  { value: 'F' as const, word: '°F' },
  { value: 'C' as const, word: '°C' },
]
const signs = [
  { value: '.' as const, word: '2.95' },
  { value: ',' as const, word: '2,95' },
]
const hint = computed(() => (props.fixed ? 'Prices are recorded in it, so it stays.' : ''))
</script>

<template>
  <div class="units">
    <SelectBox
      v-if="!without"
      v-model="units.country"
      label="Country"
      path="country"
      hint="how days, times and money are written"
    >
      <option value="">not said</option>
      <option v-for="one in countries" :key="one.value" :value="one.value">{{ one.word }}</option>
    </SelectBox>
    <ChoiceBar v-model="units.weight_unit" label="Weights in" :choices="weights" />
    <ChoiceBar v-model="units.temperature_unit" label="Temperatures in" :choices="degrees" />
    <ChoiceBar v-model="units.decimal_sign" label="Numbers like" :choices="signs" />
    <SelectBox
      v-model="units.currency"
      label="Currency"
      path="currency"
      :hint="hint"
      :disabled="fixed ?? false"
      ><option v-for="one in money" :key="one.value" :value="one.value">{{ one.word }}</option></SelectBox
    >
    <SelectBox v-model="units.time_zone" label="Time zone" path="time_zone"
      ><option v-for="one in clocks" :key="one.value" :value="one.value">{{ one.word }}</option></SelectBox
    >
  </div>
</template>

<style scoped>
.units {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(180px, 100%), 1fr));
  gap: 10px 16px;
}
</style>
