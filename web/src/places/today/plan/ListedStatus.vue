<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import type { MealIn, MealPage } from './useMeals'
import WaysOut from './WaysOut.vue'

/** How a plan on the list stands: in time or late, and what has changed since it was put there. */
defineProps<{ page: MealPage }>()
defineEmits<{ take: [input: MealIn]; renew: [] }>()
</script>

<template>
  <WaysOut
    v-if="page.is_late"
    class="status"
    :said="[page.on_time]"
    :ways="page.rescues"
    none="Nothing makes up for it in time: move the meal."
    @take="(input) => $emit('take', input)"
  />
  <p v-else class="panel status" :class="{ ready: !page.changes.length }" role="status">
    {{ page.changes.length ? '' : '✓ ' }}{{ page.on_time }}
  </p>
  <div v-if="page.changes.length" class="panel status changed" role="status" aria-label="Changed since">
    <b>Changed since it was put on the list</b>
    <p v-for="one in page.changes" :key="one">▲ {{ one }}</p>
    <ActButton v-may:cook small @click="$emit('renew')"> Update the to-do list </ActButton>
  </div>
</template>

<style scoped>
.status {
  margin-bottom: 16px;
}

.changed {
  display: grid;
  gap: 8px;
  justify-items: start;
  border-left: 6px solid var(--care);
}

.ready {
  border-left: 6px solid var(--good);
}
</style>
