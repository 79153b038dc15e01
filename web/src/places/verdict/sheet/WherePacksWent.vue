<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import WentBar from '@/shared/parts/WentBar.vue'
import { useUnits } from '@/shared/quantity/useUnits'

/** Where the packs of a finished batch went, what is left, what they brought in and what the batch earned so. */
const props = defineProps<{ stowed: Schemas['StowedOut'] }>()
const { weightText, money, percent } = useUnits()
const hasIncome = computed(() => Number(props.stowed.income) > 0)
</script>

<template>
  <section aria-label="Where the packs went">
    <WentBar :went="stowed.went" title="Where it went" />
    <div class="panel">
      <p>
        <b>{{ weightText(stowed.left) }}</b> left, {{ money(stowed.left_cost) }}
        <RouterLink :to="{ name: 'slice' }">in the larder</RouterLink>.
      </p>
      <p v-if="Number(stowed.shrink)">
        Lost after packing: <b>{{ percent(Number(stowed.shrink)) }}</b> of what was packed.
      </p>
      <template v-if="hasIncome">
        <p>
          Brought in <b>{{ money(stowed.income) }}</b>.
        </p>
        <p v-for="one in stowed.earned" :key="one.shop" class="small">
          With the rest at the price of {{ one.shop }} the batch earned <b>{{ money(one.on_batch) }}</b>.
        </p>
      </template>
    </div>
  </section>
</template>

<style scoped>
section,
.panel {
  display: grid;
  gap: 8px;
}
</style>
