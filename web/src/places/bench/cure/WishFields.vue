<script setup lang="ts">
import NumberBox from '@/shared/ui/NumberBox.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import type { Schemas } from '@/shared/api/client'

/** How the days in between are wanted: turning, drying, soaking. */
defineProps<{ twoStage: boolean }>()
const wishes = defineModel<Schemas['WishesIn']>({ required: true })
const turns = [
  { value: 1, word: 'daily' },
  { value: 2, word: 'every other day' },
  { value: 0, word: 'not at all' },
]
</script>

<template>
  <div class="wishes">
    <SelectBox v-model="wishes.turn_days" label="Turn and rub">
      <option v-for="one in turns" :key="one.value" :value="one.value">{{ one.word }}</option>
    </SelectBox>
    <NumberBox v-model="wishes.dry_hours" label="Dry uncovered, hours" :min="0" :max="72" />
    <NumberBox
      v-model="wishes.soak_minutes"
      label="Soak, minutes"
      :min="5"
      :max="600"
      placeholder="by taste"
    />
    <NumberBox
      v-if="twoStage"
      v-model="wishes.spice_day"
      label="Spices on day"
      :min="1"
      :max="120"
      placeholder="the last"
    />
    <TickBox v-model="wishes.reseason">re-season afterwards</TickBox>
  </div>
</template>

<style scoped>
.wishes {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 12px;
  align-items: end;
}
</style>
