<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed } from 'vue'
import type { Judged, Schemas, Verdict } from '@/shared/api/client'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { ofStage, useUnits } from '@/shared/quantity/useUnits'
import DialRow from './DialRow.vue'
import type { Dials } from './useTrial'

/** Tag price, what each step keeps, work, portion, the shop's prices: change them and see; nothing is recorded. */
const props = defineProps<{
  verdict: Verdict
  was: Dials
  judged: Judged
  isTried: boolean
  lost: boolean
}>()
defineEmits<{ reset: [] }>()
const dials = defineModel<Dials>('dials', { required: true })
const { cost, money, unitWord } = useUnits()

const twice = (value: string, least: number): number => Math.max(Number(value) * 2, least)
const most = (kept: string): number => (Number(kept) > 100 ? 130 : 100)
const record = computed(() => props.verdict.judged)
/** What a portion is measured in; a fault in it is named there. */
const portionWay = computed(() => {
  const { portion_weight, portion_cooked_weight } = props.verdict.dials
  return portion_weight ? 'weight' : portion_cooked_weight ? 'cooked_weight' : 'slices'
})
const portionWord = {
  slices: 'Slices of a portion',
  weight: 'Weight of a portion',
  cooked_weight: 'Cooked portion',
}
type TriedLine = { what: string; from: string | null | undefined; to: string | null | undefined }
const per = (price: Schemas['UnitCost'] | null | undefined): string | null => (price ? cost(price) : null)
/** The price the comparison is of: the forecast's until the batch is finished. */
const priceOf = ({ expected, house }: Judged) => ({
  what: expected
    ? `expected, a ${ofStage(expected.stage, unitWord.value)}`
    : `a ${ofStage(house.stage, unitWord.value)}`,
  price: per(expected ? expected.price : house.unit_cost),
})
/** Before and after, of what can be had both times. */
const changed = computed(() => {
  const [before, after] = [record.value.house, props.judged.house]
  const [was, now] = [record.value.shops[0], props.judged.shops[0]]
  const [priceWas, priceNow] = [priceOf(record.value), priceOf(props.judged)]
  const lines: TriedLine[] = [
    { what: priceNow.what, from: priceWas.price, to: priceNow.price },
    { what: 'a portion', from: before.portion, to: after.portion },
    { what: 'an hour of work earns', from: was?.earned_per_hour, to: now?.earned_per_hour },
    {
      what: `pays up to, for a ${unitWord.value} as bought,`,
      from: per(was?.break_even),
      to: per(now?.break_even),
    },
    {
      what: `saved on the batch compared with the ${now?.name}`,
      from: was?.saved_on_batch,
      to: now?.saved_on_batch,
    },
  ]
  return lines.filter((line) => line.from != null && line.to != null && line.from !== line.to)
})
</script>

<template>
  <section class="panel" aria-label="What if">
    <div class="title">
      <h2>What if</h2>
      <ActButton v-if="isTried" small @click="$emit('reset')">Reset</ActButton>
    </div>
    <p class="quiet small">nothing here changes your records</p>
    <DialRow
      v-model="dials.tag"
      label="Tag price"
      path="tag"
      :was="was.tag"
      :unit="`a ${unitWord} as bought`"
      :least="0"
      :most="twice(was.tag, 2)"
      :step="0.05"
      :places="2"
    />
    <DialRow
      v-for="one in verdict.dials.yields"
      :key="one.kind"
      v-model="dials.yields[one.kind]!"
      :label="one.label"
      :path="`yields.${one.kind}`"
      :was="one.kept"
      unit="% kept"
      :least="40"
      :most="most(one.kept)"
      :step="0.5"
      :places="1"
    />
    <DialRow
      v-model="dials.minutes"
      label="Work"
      path="minutes"
      :was="was.minutes"
      :unit="
        dials.policy.labour_rate ? `minutes at ${money(dials.policy.labour_rate)}` : 'minutes, not counted'
      "
      :least="0"
      :most="twice(was.minutes, 240)"
      :step="5"
      :places="0"
    />
    <DialRow
      v-for="(shop, index) in judged.shops"
      :key="shop.entry"
      v-model="dials.shops[index]!"
      :label="index === 0 ? 'Shop' : `Shop ${index + 1}`"
      :path="`shops[${index}]`"
      :was="was.shops[index] ?? ''"
      :unit="`the ${shop.name}'s pack`"
      :least="0"
      :most="twice(was.shops[index] ?? '', 4)"
      :step="0.05"
      :places="2"
    />
    <TypedInput
      v-if="was.portion"
      v-model="dials.portion"
      class="portion"
      :label="portionWord[portionWay]"
      :path="portionWay"
    />
    <p v-if="lost" class="care" role="status">No answer; this shows the last one.</p>
    <ul v-if="isTried" class="detail" aria-live="polite">
      <li v-for="line in changed" :key="line.what">
        {{ line.what }} <b>{{ money(line.from) }}</b> <span aria-hidden="true">→ </span
        ><span class="unseen">becomes </span><b>{{ money(line.to) }}</b>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.title {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 44px;
}

.portion {
  border-top: 1px solid #e4e8e6;
  padding-top: 6px;
  max-width: 200px;
}

.detail {
  border-top: 1px solid var(--edge);
  padding-top: 8px;
  margin-top: 4px;
}

.care {
  border-left: 4px solid var(--care);
  padding-left: 8px;
  color: var(--care-ink);
}
</style>
