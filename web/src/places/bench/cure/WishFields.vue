<script setup lang="ts">
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
    <label class="named">
      <span>Turn and rub</span>
      <select v-model.number="wishes.turn_days" class="box">
        <option v-for="one in turns" :key="one.value" :value="one.value">{{ one.word }}</option>
      </select>
    </label>
    <label class="named">
      <span>Dry uncovered, hours</span>
      <input v-model.number="wishes.dry_hours" class="box" type="number" min="0" max="72" />
    </label>
    <label class="named">
      <span>Soak, minutes</span>
      <input
        :value="wishes.soak_minutes ?? ''"
        class="box"
        type="number"
        min="5"
        max="600"
        placeholder="by taste"
        @change="wishes.soak_minutes = Number(($event.target as HTMLInputElement).value) || null"
      />
    </label>
    <label v-if="twoStage" class="named">
      <span>Spices on day</span>
      <input
        :value="wishes.spice_day ?? ''"
        class="box"
        type="number"
        min="1"
        max="120"
        placeholder="the last"
        @change="wishes.spice_day = Number(($event.target as HTMLInputElement).value) || null"
      />
    </label>
    <label class="tick"><input v-model="wishes.reseason" type="checkbox" /> re-season afterwards</label>
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
