<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import type { Preview } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import RemoveButton from '@/shared/ui/RemoveButton.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { useDraft } from '@/shared/writing/useDraft'
import { blankPart, type DishIn, type Dishes, sorts, useDishPreview, useDishWrites } from './useDishes'

/** A dish, part by part, each with what it costs beside it as it is typed. */
const props = defineProps<{ dishes: Dishes; input?: DishIn }>()
const emit = defineEmits<{ done: [] }>()
const { money, percent } = useUnits()
const start = (): DishIn => ({
  name: '',
  parts: [blankPart()],
  plates: '',
  price: '',
  tax: '',
  is_tax_in: false,
  words: '',
  put_away: false,
})
const blank = (): DishIn => (props.input ? (JSON.parse(JSON.stringify(props.input)) as DishIn) : start())
const { draft, clear } = useDraft<DishIn>(`dish:${props.input?.name ?? 'new'}`, blank)
const { saving, renew } = useDishWrites(() => draft)
const answer = useDishPreview(() => (draft.name || draft.parts.some((one) => one.name) ? draft : null))
const unfinished = new Set(['missing', 'empty'])
const preview = computed<Preview | null>(
  () =>
    answer.value &&
    ({
      readings: [],
      problems: answer.value.problems.filter((one) => !unfinished.has(one.code)),
    } as unknown as Preview),
)
provideFormFacts({ preview, problem: saving.problem })
const isPuttingAway = ref(false)
const names = (sort: string): string[] => {
  if (sort === 'larder') return props.dishes.products
  if (sort === 'price') return props.dishes.priced
  return sort === 'dish' ? props.dishes.dishes.map((one) => one.name).filter((one) => one !== draft.name) : []
}
const example: Record<string, string> = { larder: '3 slices', price: '40 g', dish: '1', own: 'a handful' }
const isWeight = (amount: string): boolean => /[a-z]/i.test(amount) && !/slice/i.test(amount)
function save(putAway = false): void {
  void saving.write({ ...draft, put_away: putAway }, () => {
    clear()
    renew()
    emit('done')
  })
}
</script>

<template>
  <form v-may:cook class="panel" aria-label="A dish" @submit.prevent="save()">
    <div class="top">
      <TypedInput v-model="draft.name" label="Name" path="name" placeholder="Harbor roll" />
      <TypedInput
        v-model="draft.plates"
        label="The parts are for, plates"
        path="plates"
        placeholder="1"
        inputmode="decimal"
      />
      <TypedInput
        v-model="draft.price"
        label="Price on the menu"
        path="price"
        placeholder="9.50"
        inputmode="decimal"
      />
      <TypedInput v-model="draft.tax" label="Tax (%)" path="tax" placeholder="0" inputmode="decimal" />
      <TickBox v-model="draft.is_tax_in">the tax is in the price</TickBox>
    </div>
    <fieldset v-for="(one, at) in draft.parts" :key="at" class="one-part">
      <legend>Part {{ at + 1 }}</legend>
      <ChoiceBar v-model="one.sort" :label="`Part ${at + 1} is`" quiet-label :choices="sorts" />
      <div class="part" :class="{ own: one.sort === 'own' }">
        <TypedInput
          v-model="one.name"
          label="What"
          :path="`parts[${at}].name`"
          :suggestions="names(one.sort)"
        />
        <TypedInput
          v-model="one.amount"
          label="On the plate"
          :path="`parts[${at}].amount`"
          :placeholder="example[one.sort] ?? ''"
        />
        <TypedInput
          v-if="one.sort === 'own'"
          v-model="one.cost"
          label="It costs"
          :path="`parts[${at}].cost`"
          placeholder="0.52"
        />
        <TypedInput
          v-model="one.kept"
          label="Yield (%)"
          :path="`parts[${at}].kept`"
          placeholder="100"
          inputmode="decimal"
        />
        <p class="cost">
          <b>{{ money(answer?.parts[at]?.cost ?? null) }}</b>
          <span class="quiet small">{{ answer?.parts[at]?.basis ?? '' }}</span>
        </p>
        <RemoveButton :label="`Remove part ${at + 1}`" @remove="draft.parts.splice(at, 1)" />
      </div>
      <TickBox v-if="one.sort === 'larder' && isWeight(one.amount)" v-model="one.is_cooked"
        >that is its cooked weight</TickBox
      >
    </fieldset>
    <ActButton class="add" small @click="draft.parts.push(blankPart('price'))"> + another part </ActButton>
    <p class="sum">
      A plate costs <b>{{ money(answer?.cost ?? null) }}</b><template v-if="answer?.menu?.food_cost"
        >, {{ percent(answer.menu.food_cost) }} of the menu price; it leaves
        <b>{{ money(answer.menu.leaves) }}</b></template
      ><template v-if="answer?.charge.length"
        >. For the aim: {{ answer.charge.map((one) => money(one)).join(' to ') }}</template
      >.
    </p>
    <SaveBar
      word="Save the dish"
      :state="saving.state.value"
      :problem="saving.problem.value"
      cancel-word="Close"
      @retry="saving.retry()"
      @cancel="emit('done')"
    />
    <template v-if="input">
      <ActButton v-if="!isPuttingAway" class="add" small @click="isPuttingAway = true">
        Take it off the list
      </ActButton>
      <ActButton v-else class="add" small @click="save(true)">
        Yes, take “{{ draft.name }}” off the list
      </ActButton>
    </template>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
  margin-bottom: 16px;
}

.top {
  display: grid;
  grid-template-columns: minmax(180px, 2fr) repeat(3, minmax(100px, 1fr)) auto;
  gap: 10px;
  align-items: end;
}

.one-part {
  border: 0;
  border-top: 1px solid var(--edge);
  margin: 0;
  padding: 8px 0 0;
  min-width: 0;
  display: grid;
  gap: 8px;
}

.one-part > legend {
  float: left;
  padding: 0;
  font-weight: 700;
}

.part {
  display: grid;
  grid-template-columns: minmax(150px, 2fr) minmax(100px, 1fr) 88px minmax(110px, 0.9fr) auto;
  gap: 10px;
  align-items: end;
}

.part.own {
  grid-template-columns:
    minmax(150px, 2fr) minmax(90px, 1fr) minmax(80px, 0.8fr) 88px minmax(110px, 0.9fr)
    auto;
}

.cost {
  display: grid;
  text-align: right;
  padding-bottom: 20px;
}

.add {
  justify-self: start;
}

.sum {
  font-size: 17px;
}

@media (max-width: 979px) {
  .top,
  .part,
  .part.own {
    grid-template-columns: 1fr 1fr;
  }

  .cost {
    padding: 0;
  }
}
</style>
