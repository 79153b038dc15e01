<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { useUnits } from '@/shared/quantity/useUnits'
import type { Schemas } from '@/shared/api/client'
import type { MealIn } from './useMeals'

/** What is wrong with a plan, and what can be done, each with its price; none is taken by itself. */
defineProps<{ said: string[]; ways: Schemas['WayOutOut'][]; none: string }>()
const emit = defineEmits<{ take: [input: MealIn] }>()
const { money } = useUnits()
/** ", $13.05 more" */
function moreText(more: string | null): string {
  const amount = Number(more)
  if (more === null) return ''
  if (amount === 0) return ', costs nothing'
  return `, ${money(Math.abs(amount).toFixed(2))} ${amount > 0 ? 'more' : 'less'}`
}
</script>

<template>
  <section class="panel clash" aria-label="Does it fit" role="alert">
    <p v-for="one in said" :key="one">▲ {{ one }}</p>
    <template v-if="ways.length">
      <p><b>What can be done</b></p>
      <template v-for="way in ways" :key="way.words">
        <ActButton v-if="way.input" v-may:cook small @click="emit('take', way.input)">
          {{ way.words }}<span class="quiet">{{ moreText(way.more) }}</span>
        </ActButton>
        <p v-else>
          {{ way.words }}<span class="quiet">{{ moreText(way.more) }}</span>
        </p>
      </template>
    </template>
    <p v-else>{{ none }}</p>
  </section>
</template>

<style scoped>
.clash {
  display: grid;
  gap: 8px;
  border-left: 6px solid var(--care);
  background: var(--care-ground);
}

.act {
  height: auto;
  padding: 8px 12px;
  text-align: left;
  white-space: normal;
}
</style>
