<script setup lang="ts">
import { computed } from 'vue'
import { fateWord } from './fates'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** Where it went, as one bar by what it cost; below it each way in words, with what it brought in. */
type Went = Pick<Schemas['WentOut'], 'fate' | 'weight' | 'cost' | 'income'>
const props = defineProps<{ went: Went[]; title?: string }>()
const { weightText, money } = useUnits()
const colors: Record<string, string> = {
  plated: '#1A6B50',
  eaten: '#D9657A',
  sold: '#6F8F8A',
  given: '#F1D9A6',
  used: '#8FB8D6',
  spoiled: '#7F5413',
  discarded: '#8B9692',
}
const whole = computed(() => props.went.reduce((sum, one) => sum + Number(one.cost), 0))
const part = (one: Went): string => (whole.value ? `${(100 * Number(one.cost)) / whole.value}%` : '0')
</script>

<template>
  <section v-if="went.length" class="panel" aria-label="Where it went">
    <h2>{{ title ?? 'Where it went, 30 days' }}</h2>
    <div class="bar" aria-hidden="true">
      <span
        v-for="one in went"
        :key="one.fate"
        :style="{ width: part(one), background: colors[one.fate] ?? '' }"
      />
    </div>
    <ul>
      <li v-for="one in went" :key="one.fate">
        <i :style="{ background: colors[one.fate] ?? '' }" aria-hidden="true" />
        <span>{{ fateWord(one.fate) }}</span>
        <span class="quiet">{{ weightText(one.weight) }}</span>
        <b>{{ money(one.cost) }}</b>
        <span v-if="Number(one.income)" class="good in">brought in {{ money(one.income) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

.bar {
  display: flex;
  gap: 2px;
  height: 30px;
}

.bar span {
  min-width: 3px;
}

ul {
  display: grid;
  gap: 2px;
}

li {
  display: grid;
  grid-template-columns: 12px minmax(0, 1fr) auto 72px;
  gap: 0 8px;
  align-items: center;
}

li b {
  text-align: right;
}

i {
  width: 11px;
  height: 11px;
}

.in {
  grid-column: 2 / -1;
  font-size: 13px;
}
</style>
