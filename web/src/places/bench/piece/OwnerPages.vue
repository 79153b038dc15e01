<script setup lang="ts">
import TypedInput from '@/shared/ui/TypedInput.vue'
import { ref } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'

/** A page to print for each owner: what came in, what goes out, its yield, the charge by weight. */
const props = defineProps<{ owners: string[]; root: string }>()
const { unitWord, like } = useUnits()
const charge = ref('')
const by = ref<'out' | 'in'>('out')
const ways = [
  { value: 'out' as const, word: 'Goes out' },
  { value: 'in' as const, word: 'Came in' },
]
const address = (owner: string): string =>
  `${props.root}/owner-page?${new URLSearchParams({ owner, charge: charge.value.trim(), by: by.value }).toString()}`
</script>

<template>
  <section class="panel lines" aria-label="Pages for owners">
    <h2>A page for each owner</h2>
    <TypedInput
      v-model="charge"
      :label="`Charge a ${unitWord} (may stay empty)`"
      inputmode="decimal"
      maxlength="12"
      :placeholder="like('1.20', '2.65')"
    />
    <ChoiceBar v-model="by" label="Of the weight that" :choices="ways" />
    <ul>
      <li v-for="owner in owners" :key="owner">
        <a :href="address(owner)" target="_blank">{{ owner }} (PDF)</a>
      </li>
    </ul>
  </section>
</template>

<style scoped>
li a {
  display: inline-grid;
  min-height: 40px;
  align-content: center;
}
</style>
