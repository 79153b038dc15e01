<script setup lang="ts">
import { useDraft } from '@/shared/writing/useDraft'
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useSlug } from '@/shared/api/useSlug'
import { renewShown } from '@/shared/api/renewShown'
import { dayText } from '@/shared/quantity/when'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'

/** Salt, curing salt, sugar, bags, pellets: bought and counted, less what batches used. */
const kitchen_slug = useSlug()
const queries = useQueryClient()
const { like } = useUnits()
const { data: cupboard, error, refetch } = useKitchenQuery('cupboard', '/cupboard')
const { draft, clear } = useDraft('stock', () => ({
  what: '',
  sort: 'bought' as 'bought' | 'counted',
  amount: '',
}))
const noting = useKitchenWrite('stock', '/cupboard', { typed: () => draft })
const choices = [
  { value: 'bought' as const, word: 'Bought' },
  { value: 'counted' as const, word: 'Counted: this is all there is' },
]
const field = ref<HTMLInputElement | null>(null)
function choose(what: string, sort: 'bought' | 'counted'): void {
  Object.assign(draft, { what, sort, amount: '' })
  field.value?.focus()
}
function note(): void {
  void noting.write({ ...draft }, (now) => {
    queries.setQueryData(['cupboard', kitchen_slug.value], now)
    renewShown(queries)
    clear()
  })
}
const known = computed(() => (cupboard.value?.stock ?? []).filter((one) => one.left !== null))
const unknown = computed(() => (cupboard.value?.stock ?? []).filter((one) => one.left === null))
</script>

<template>
  <div class="head">
    <h1>Store cupboard</h1>
    <span class="quiet">bought and counted, less what batches used</span>
  </div>
  <LoadState v-if="!cupboard" :error="error" what="the store cupboard" @retry="refetch()" />
  <div v-else class="two">
    <section class="panel" aria-label="What is left">
      <p v-if="!known.length">Nothing noted yet. Note what you bought, or count what is there.</p>
      <ul v-else class="stock">
        <li v-for="one in known" :key="one.what" :class="{ low: one.is_low }">
          <b class="name">{{ one.what }}</b>
          <span class="left">{{ one.left }}</span>
          <span>
            <template v-if="one.batches !== null"
              ><b :class="one.is_low ? 'dear' : 'good'">{{
                one.batches
                  ? `enough for ${one.batches} ${one.batches === 1 ? 'batch' : 'batches'}`
                  : '▲ not enough for the next batch'
              }}</b>
              <span class="quiet small"> a batch takes {{ one.a_batch }}</span></template
            >
            <span v-else class="quiet small">no batch has used it yet</span>
          </span>
          <span class="quiet small">{{
            one.note || (one.noted_on ? `noted ${dayText(one.noted_on)}` : '')
          }}</span>
          <span class="acts">
            <ActButton v-may:cook small @click="choose(one.what, 'bought')"> Bought </ActButton>
            <ActButton v-may:cook small @click="choose(one.what, 'counted')"> Count </ActButton>
          </span>
        </li>
      </ul>
      <template v-if="unknown.length">
        <h2>On the price list, never noted</h2>
        <p class="names">
          <ActButton v-for="one in unknown" :key="one.what" small @click="choose(one.what, 'counted')">
            {{ one.what }}
          </ActButton>
        </p>
      </template>
    </section>
    <form v-may:cook class="panel" @submit.prevent="note">
      <h2>Add stock or a count</h2>
      <TypedInput v-model="draft.what" label="What" maxlength="80" placeholder="curing salt no. 1" />
      <ChoiceBar v-model="draft.sort" label="It was" :choices="choices" />
      <TypedInput
        ref="field"
        v-model="draft.amount"
        label="How much"
        :placeholder="like('2 lb, or 100 each', '1 kg, or 100 each')"
      />
      <SaveBar
        :word="draft.sort === 'bought' ? 'Put it into the cupboard' : 'Record the count'"
        :state="noting.state.value"
        :problem="noting.problem.value"
        @retry="noting.retry()"
      />
    </form>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(260px, 340px);
  gap: 16px;
  align-items: start;
}

.stock li {
  display: grid;
  grid-template-columns: minmax(130px, 1.2fr) 92px minmax(180px, 1.4fr) minmax(90px, 0.8fr) auto;
  gap: 4px 14px;
  align-items: center;
  padding: 7px 0;
  border-bottom: 1px solid var(--edge);
}

.left {
  font-size: 18px;
  font-weight: 720;
  text-align: right;
}

.acts,
.names {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

h2 {
  margin: 14px 0 8px;
}

form {
  display: grid;
  gap: 12px;
}

form h2 {
  margin: 0;
}

@media (max-width: 979px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }

  form {
    order: -1;
  }

  .stock li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
