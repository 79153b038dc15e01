<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import RemoveButton from '@/shared/ui/RemoveButton.vue'
import type { Cutting } from './useBoard'

/** Packs closed so far and not recorded yet, and those made of this batch before. */
defineProps<{
  draft: Cutting
  costs: Schemas['PackCostOut'][]
  before: Schemas['PackOut'][]
  first: string
  number: number
}>()
defineEmits<{ remove: [at: number] }>()
const { money, weightText } = useUnits()
</script>

<template>
  <section class="panel" aria-label="Packs">
    <h2>Packs</h2>
    <ul>
      <li v-for="(pack, at) in draft.packs" :key="at" class="fresh">
        <span class="small"
          >P{{ number + at }},
          {{ pack.slices ? `${pack.slices} slices` : (draft.products[pack.product]?.form ?? '') }}</span
        >
        <b>{{ pack.weight }}</b>
        <span class="quiet small"
          >{{ money(costs[at]?.cost ?? null) }}{{ pack.store ? `, ${pack.store}` : '' }}</span
        >
        <RemoveButton :label="`Open P${number + at} again`" @remove="$emit('remove', at)" />
      </li>
      <li class="next quiet">{{ first }}</li>
    </ul>
    <template v-if="before.length">
      <h3>Made before</h3>
      <ul>
        <li v-for="pack in before" :key="pack.mark" :class="{ gone: pack.is_gone }">
          <RouterLink :to="{ name: 'pack', params: { code: pack.code, mark: pack.mark } }"
            >{{ pack.mark }},
            {{ pack.left_slices === null ? pack.form : `${pack.left_slices} slices` }}</RouterLink
          >
          <b>{{ pack.is_gone ? 'gone' : weightText(pack.left) }}</b>
          <span class="quiet small"
            >{{ money(pack.left_cost) }}{{ pack.store ? `, ${pack.store}` : '' }}</span
          >
        </li>
      </ul>
    </template>
    <p class="quiet small">
      A pack is a label, a place and a day. It leaves only by being eaten, sold, used, given or thrown away.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
}

ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
  gap: 10px;
}

li {
  position: relative;
  display: grid;
  align-content: start;
  gap: 2px;
  min-height: 88px;
  padding: 9px 12px;
  border: 2px solid var(--ink);
  border-radius: 4px;
}

li b {
  font-size: 21px;
  font-weight: 780;
}

.fresh {
  border-color: var(--rose);
  background: #fcf1f3;
}

.next {
  place-content: center;
  border: 2px dashed var(--edge);
}

.gone {
  border-color: var(--edge);
  color: var(--quiet);
}

a {
  min-height: 24px;
}

h3 {
  font-size: 15px;
}
</style>
