<script setup lang="ts">
import { ref } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'

/** A page to print for each owner: what came in, what goes out, its yield, the charge by finished weight. */
const props = defineProps<{ owners: string[]; root: string }>()
const { unitWord, like } = useUnits()
const charge = ref('')
const address = (owner: string): string =>
  `${props.root}/owner-page?${new URLSearchParams({ owner, charge: charge.value.trim() }).toString()}`
</script>

<template>
  <section class="panel lines" aria-label="Pages for owners">
    <h2>A page for each owner</h2>
    <label class="named">
      <span>Charge a finished {{ unitWord }} (may stay empty)</span>
      <input
        v-model="charge"
        class="box"
        inputmode="decimal"
        maxlength="12"
        :placeholder="like('1.20', '2.65')"
      />
    </label>
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
