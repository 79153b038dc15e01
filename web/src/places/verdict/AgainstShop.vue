<script setup lang="ts">
import { computed } from 'vue'
import type { Batch } from '@/shared/api/client'
import { useUnits, without } from '@/shared/quantity/useUnits'

/** House beside shop: cheaper or dearer by how much a pound, a portion, on the batch. */
const props = defineProps<{ batch: Batch }>()
const { money, costText, otherCostText, unit, unitWord } = useUnits()
const shop = computed(() => props.batch.shop)
const saved = computed(
  () => (unit.value === 'lb' ? shop.value?.saved_per_lb : shop.value?.saved_per_kg) ?? null,
)
const isEven = computed(() => saved.value !== null && Number(saved.value) === 0)
const verdict = computed(() => {
  if (saved.value === null) return 'Nothing left to compare'
  if (isEven.value) return 'As dear as the shop'
  return `${money(without(saved.value))} a ${unitWord.value} ${shop.value?.is_cheaper ? 'cheaper' : 'dearer'}`
})
const less = (amount: string): string => (amount.startsWith('-') ? 'more' : 'less')
</script>

<template>
  <section class="panel" aria-label="Against the shop">
    <template v-if="shop">
      <p class="quiet small">Against the {{ shop.name }}</p>
      <p class="verdict" :class="shop.is_cheaper ? 'good' : 'dear'">
        <span aria-hidden="true">{{ isEven ? '=' : shop.is_cheaper ? '▼' : '▲' }}</span> {{ verdict }}
      </p>
      <ul>
        <li v-if="shop.saved_on_batch">
          <b>{{ money(without(shop.saved_on_batch)) }}</b> {{ less(shop.saved_on_batch) }} on this batch
        </li>
        <li v-if="shop.saved_per_portion">
          <b>{{ money(without(shop.saved_per_portion)) }}</b> {{ less(shop.saved_per_portion) }} a portion
        </li>
        <li v-if="!batch.house.is_sliced" class="care">
          The house price is of the {{ batch.house.stage }} stage; it still climbs until all is sliced.
        </li>
        <li class="quiet small">
          The pack: {{ money(shop.pack.split(' ')[0]) }} {{ shop.pack.slice(shop.pack.indexOf(' ') + 1) }},
          which is {{ costText(shop.unit_cost) }} a {{ unitWord }} ({{
            otherCostText(shop.unit_cost)
          }})<template v-if="shop.portion">, {{ money(shop.portion) }} a portion</template>.
        </li>
      </ul>
    </template>
    <template v-else>
      <p class="quiet small">Against the shop</p>
      <p>No shop pack is set for this batch yet.</p>
      <RouterLink class="act small" :to="{ name: 'log', params: { code: batch.code } }">
        Set one on the bench
      </RouterLink>
    </template>
  </section>
</template>

<style scoped>
.verdict {
  font-size: 20px;
  font-weight: 760;
  line-height: 1.2;
  margin: 2px 0 6px;
}

ul {
  display: grid;
  gap: 4px;
}

.care {
  border-left: 4px solid var(--care);
  padding-left: 8px;
  color: var(--care-ink);
  font-size: 14px;
}

.act {
  margin-top: 8px;
}
</style>
