<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { computed, ref } from 'vue'
import { api, type Batch, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import { useUnits } from '@/shared/quantity/useUnits'
import { colourOf } from '@/shared/strip/materials'

/** The butcher's test: what a usable pound costs, and what next week's price makes of it at once. */
const props = defineProps<{ batch: Batch }>()
const kitchen_slug = useSlug()
const { weightText, costText, unit, unitWord, money, percent } = useUnits()
const price = ref('')
const materials = computed(() => new Map(props.batch.by_products.map((one) => [one.name, one.material])))
const colour = (part: Schemas['TestPartOut']): string =>
  colourOf(part.is_usable ? 'lean' : (materials.value.get(part.name) ?? 'other'))
const { last: test, problem } = useAsking(
  "butcher's test",
  () => ({ code: props.batch.code, seen: props.batch.seen, price: price.value }),
  ({ code, price }) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/butchers-test', {
        params: { path: { kitchen_slug: kitchen_slug.value, code } },
        body: { price },
      }),
    ),
)
const lines = computed(() => {
  const parts = test.value?.parts ?? []
  return [...parts.filter((one) => one.is_usable), ...parts.filter((one) => !one.is_usable)]
})
</script>

<template>
  <div class="test">
    <p v-if="problem" class="care">{{ problem.detail }}</p>
    <template v-if="test">
      <p>
        Bought {{ weightText(test.bought) }} for {{ money(test.paid) }}, {{ costText(test.price) }} a
        {{ unitWord }}.
      </p>
      <div class="bar" aria-hidden="true">
        <i
          v-for="part in lines"
          :key="part.name"
          :style="{ flexGrow: part.share, background: colour(part) }"
        />
      </div>
      <LedgerTable>
        <thead>
          <tr>
            <th>Part</th>
            <th>Weight</th>
            <th>Of it</th>
            <th>Worth</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="part in lines" :key="part.name">
            <th scope="row">{{ part.name }}</th>
            <td>{{ weightText(part.weight) }}</td>
            <td>{{ percent(part.share) }}</td>
            <td>{{ part.is_usable ? '' : money(part.worth) }}</td>
          </tr>
          <tr>
            <th scope="row" class="quiet">lost, not weighed</th>
            <td>{{ weightText(test.lost) }}</td>
            <td>{{ percent(test.lost_share) }}</td>
            <td />
          </tr>
          <tr class="sum">
            <th scope="row">usable</th>
            <td>{{ weightText(test.usable) }}</td>
            <td>{{ percent(test.usable_share) }}</td>
            <td />
          </tr>
        </tbody>
      </LedgerTable>
      <p class="factor">
        A usable {{ unitWord }} costs <b>{{ costText(test.usable_price) }}</b><template v-if="test.factor"
          >: cost factor <b>{{ test.factor }}</b></template
        >.
      </p>
    </template>
    <TypedInput
      v-model="price"
      :label="`Next week’s price per ${unitWord}`"
      :placeholder="`3.10/${unit}`"
      inputmode="decimal"
    />
    <p v-if="test?.next_usable && test.next_with_same_worth" role="status">
      Then a usable {{ unitWord }} costs <b>{{ costText(test.next_usable) }}</b> by the factor, or
      {{ costText(test.next_with_same_worth) }} if trim stays worth what it is now.
    </p>
    <p class="quiet small">
      Cost factor: price of a usable {{ unitWord }} ÷ price as purchased, buying costs included, worth of what
      is cut off taken out. The standard yield test of kitchen costing.
    </p>
  </div>
</template>

<style scoped>
.test {
  display: grid;
  gap: 10px;
}

.bar {
  display: flex;
  gap: 1px;
  height: 22px;
}

.bar i {
  flex-basis: 0;
}

table {
  border-collapse: collapse;
  width: 100%;
}

th,
td {
  padding: 3px 0 3px 10px;
  text-align: right;
}

th:first-child {
  text-align: left;
  padding-left: 0;
}

tbody th {
  font-weight: 400;
}

tbody tr {
  border-top: 1px solid var(--edge);
}

.sum th,
.sum td,
.factor b {
  font-weight: 700;
}

.factor {
  font-size: 17px;
}

.care {
  color: var(--care-ink);
}
</style>
