<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import type { Offer } from './offerDraft'
import { takeText, useTake } from './useTake'
import type { Case, Checked, CheckedOffer } from './useCase'
import FindingList from '@/shared/ui/FindingList.vue'

/** What an offer's price comes from, its notes, how much to buy; and taking it home with one touch. */
const props = defineProps<{ offer: CheckedOffer; typed: Offer; asked: Case; checked: Checked }>()
defineEmits<{ change: []; drop: [] }>()
const { bothText, costText, like, money, unitWord, weightText } = useUnits()
const packs = ref(props.offer.packs_wanted ?? 1)
const weight = ref('')
const { state, problem, retry, takeHome } = useTake(() => props.asked, props.offer.id)
provideFormFacts({ preview: ref(null), problem })
const word = computed(() => `${takeText(props.offer.pack ? packs.value : null)} home`)
</script>

<template>
  <div class="detail">
    <div>
      <FindingList class="doubts" :findings="offer.doubts" label="Notes" />
      <dl>
        <div v-if="offer.portion">
          <dt>A portion, {{ checked.portion_label }}</dt>
          <dd>
            {{ money(offer.portion.middle) }}
            <span class="quiet small">{{ money(offer.portion.low) }} to {{ money(offer.portion.high) }}</span>
          </dd>
        </div>
        <div>
          <dt>{{ like('An ounce', '100 g') }}, cooked</dt>
          <dd>
            {{ money(offer.cooked.middle) }}
            <span class="quiet small">{{ money(offer.cooked.low) }} to {{ money(offer.cooked.high) }}</span>
          </dd>
        </div>
        <div v-if="offer.worth_pack">
          <dt>The pack, worth up to</dt>
          <dd>{{ money(offer.worth_pack) }}</dd>
        </div>
        <template v-if="offer.amount">
          <div>
            <dt>Buy, to have enough {{ asked.sure || 90 }} times of 100</dt>
            <dd>
              <template v-if="offer.amount.packs"
                >{{ offer.amount.packs }} {{ offer.amount.packs === 1 ? 'pack' : 'packs' }},
              </template>
              {{ bothText(offer.amount.weight) }}, {{ money(offer.amount.cost) }}
            </dd>
          </div>
          <div>
            <dt>Expected to be left over</dt>
            <dd>
              {{ weightText(offer.amount.left)
              }}{{ offer.amount.left_portions === null ? '' : `, ${offer.amount.left_portions} portions` }}
            </dd>
          </div>
          <div v-if="checked.buy_by">
            <dt>To eat it then, buy by</dt>
            <dd>{{ dayText(checked.buy_by) }}</dd>
          </div>
        </template>
      </dl>
      <form v-may:cook class="take" novalidate @submit.prevent="takeHome(packs, weight)">
        <TypedInput
          v-if="!offer.pack"
          v-model="weight"
          label="What it weighs"
          path="weight"
          :placeholder="like('20 lb', '10 kg')"
        />
        <div v-else class="count" role="group" aria-label="Packs">
          <ActButton aria-label="One pack less" @click="packs = Math.max(1, packs - 1)"> − </ActButton>
          <b>{{ packs }}</b>
          <ActButton aria-label="One pack more" @click="packs += 1">+</ActButton>
        </div>
        <ActButton first submit :disabled="state === 'saving'">{{ word }}</ActButton>
        <ActButton @click="$emit('change')">Change</ActButton>
        <ActButton @click="$emit('drop')">Remove</ActButton>
      </form>
      <ProblemNote
        v-if="problem"
        :problem="problem"
        :retry-word="state === 'failed' ? 'Try again' : ''"
        @retry="retry"
      />
    </div>
    <LedgerTable>
      <caption>
        What each step is expected to keep
      </caption>
      <thead>
        <tr>
          <th scope="col">Step</th>
          <th scope="col">Kept, based on</th>
          <th scope="col" class="right">Price of a {{ unitWord }} then</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="step in offer.steps" :key="step.label">
          <th scope="row">{{ step.label }}</th>
          <td>{{ step.basis }}</td>
          <td class="right">{{ costText(step.price.middle) }}</td>
        </tr>
      </tbody>
    </LedgerTable>
  </div>
</template>

<style scoped>
.detail {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(380px, 100%), 1fr));
  gap: 14px 28px;
  padding: 10px 0 6px;
  border-top: 1px dashed var(--edge);
}

.doubts {
  margin-bottom: 8px;
}

dl div {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 4px 0;
  border-bottom: 1px solid #e4e8e6;
}

dd {
  font-weight: 650;
  text-align: right;
}

dd span {
  font-weight: 450;
}

.take {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
  margin: 12px 0 4px;
}

.count {
  display: flex;
  align-items: center;
  gap: 8px;
}

.count .act {
  min-width: 44px;
  padding: 0;
  font-size: 20px;
}

.count b {
  min-width: 20px;
  text-align: center;
  font-size: 18px;
}

table {
  border-collapse: collapse;
  width: 100%;
  align-self: start;
  font-size: 14px;
}

caption {
  text-align: left;
  font-weight: 700;
  padding-bottom: 4px;
}

thead th {
  font-size: 13px;
  font-stretch: 88%;
  color: var(--quiet);
  font-weight: 500;
}

th,
td {
  text-align: left;
  padding: 3px 10px 3px 0;
  border-bottom: 1px solid #e4e8e6;
  vertical-align: top;
}

.right {
  text-align: right;
  padding-right: 0;
  white-space: nowrap;
}
</style>
