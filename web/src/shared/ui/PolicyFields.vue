<script setup lang="ts">
import TickBox from '@/shared/ui/TickBox.vue'
import type { Policy } from '@/shared/api/client'
import TypedInput from './TypedInput.vue'

/** What is counted: work at a rate, and each of the rest or not. */
const policy = defineModel<Pick<Policy, Counted>>('policy', { required: true })
type Counted = 'labour_rate' | 'by_products' | 'fuel' | 'packaging' | 'overhead'
const switches = [
  { key: 'by_products' as const, word: 'Credit what is cut off' },
  { key: 'fuel' as const, word: 'Fuel' },
  { key: 'packaging' as const, word: 'Packaging' },
  { key: 'overhead' as const, word: 'Overhead' },
]
</script>

<template>
  <TypedInput
    v-model="policy.labour_rate"
    label="An hour of work is worth"
    path="labour_rate"
    hint="leave empty to leave work out"
    placeholder="18.00"
    inputmode="decimal"
  />
  <TickBox v-for="one in switches" :key="one.key" v-model="policy[one.key]">{{ one.word }}</TickBox>
</template>
