<script setup lang="ts">
import type { Schemas, Shop } from '@/shared/api/client'
import { useUnits, without } from '@/shared/quantity/useUnits'

/** A batch with customers' pieces: what of it is the kitchen's own, and what that alone saved. */
defineProps<{ yours: Schemas['YoursOut']; shops: Shop[]; code: string }>()
const { money, costText, weightText, unitWord } = useUnits()
const counted = (count: number): string => (count === 1 ? '1 piece' : `${count} pieces`)
</script>

<template>
  <section class="panel" aria-label="Customers’ pieces">
    <h2>Customers’ pieces</h2>
    <p>
      <RouterLink :to="{ name: 'pieces-table', params: { code } }">{{
        counted(yours.customers_pieces)
      }}</RouterLink>
      here, {{ weightText(yours.customers_weight) }},
      {{ yours.customers_pieces === 1 ? 'is a' : 'are' }} customer{{
        yours.customers_pieces === 1 ? '’s' : 's’'
      }}.
    </p>
    <p v-if="!yours.pieces">None of it is yours: the books count no savings of it.</p>
    <template v-else>
      <p>
        Yours: {{ counted(yours.pieces) }}, <b>{{ weightText(yours.weight) }}</b><template
          v-if="yours.unit_cost"
          >, at <b>{{ costText(yours.unit_cost) }}</b> a {{ unitWord }}</template
        >. The books count these alone.
      </p>
      <ul>
        <template v-for="(saved, index) in yours.saved" :key="index">
          <li v-if="saved">
            <b>{{ money(without(saved)) }}</b> {{ saved.startsWith('-') ? 'more' : 'less' }} than the
            {{ shops[index]?.name }} for your part
          </li>
        </template>
      </ul>
    </template>
  </section>
</template>

<style scoped>
p,
ul {
  margin-top: 4px;
}
</style>
