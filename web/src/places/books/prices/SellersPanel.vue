<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { vMay } from '@/shared/kitchen/vMay'
import SaveBar from '@/shared/ui/SaveBar.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'

/** Who prices and meat are from, each with the names they were written under; two names are joined here. */
const props = defineProps<{ sellers: Schemas['SellerOut'][] }>()
const queries = useQueryClient()
const draft = ref({ name: '', same_as: '' })

const shown = computed(() => {
  const groups = new Map<string, Schemas['SellerOut'][]>()
  for (const one of props.sellers) groups.set(one.called, [...(groups.get(one.called) ?? []), one])
  return [...groups].map(([called, names]) => ({
    called,
    prices: names.reduce((sum, one) => sum + one.prices, 0),
    batches: names.reduce((sum, one) => sum + one.batches, 0),
    others: names.filter((one) => one.name !== called),
  }))
})
function countsText(one: { prices: number; batches: number }): string {
  const prices = one.prices && `${one.prices} price${one.prices === 1 ? '' : 's'}`
  const batches = one.batches && `${one.batches} batch${one.batches === 1 ? '' : 'es'}`
  return [prices, batches].filter(Boolean).join(', ')
}
const joined = useKitchenWrite('seller', '/sellers')
provideFormFacts({ preview: ref(null), problem: joined.problem })
function renew(): void {
  draft.value = { name: '', same_as: '' }
  void queries.invalidateQueries({ queryKey: ['books'] })
}
</script>

<template>
  <section class="panel" aria-label="Sellers">
    <h2>Sellers</h2>
    <ul>
      <li v-for="one in shown" :key="one.called">
        <b>{{ one.called }}</b>
        <span class="quiet small">
          {{ countsText(one) }}
        </span>
        <span v-for="other in one.others" :key="other.name" class="small other">
          also written “{{ other.name }}”
          <ActButton v-may:cook small @click="joined.write({ name: other.name, same_as: '' }, renew)">
            Separate {{ other.name }}
          </ActButton>
        </span>
      </li>
    </ul>
    <form
      v-if="shown.length > 1"
      v-may:cook
      class="lines"
      @submit.prevent="joined.write({ ...draft }, renew)"
    >
      <SelectBox v-model="draft.name" label="Name" required>
        <option value="" disabled>choose</option>
        <option v-for="one in shown" :key="one.called">{{ one.called }}</option>
      </SelectBox>
      <SelectBox v-model="draft.same_as" label="is the same seller as" required>
        <option value="" disabled>choose</option>
        <option v-for="one in shown.filter((one) => one.called !== draft.name)" :key="one.called">
          {{ one.called }}
        </option>
      </SelectBox>
      <SaveBar
        word="Join the two names"
        :state="joined.state.value"
        :problem="joined.problem.value"
        @retry="joined.retry()"
      />
    </form>
  </section>
</template>

<style scoped>
section,
ul {
  display: grid;
  gap: 8px;
}

li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}

.other {
  display: flex;
  align-items: center;
  gap: 8px;
}

form {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 12px;
}
</style>
