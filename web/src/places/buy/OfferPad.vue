<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { useSession } from '@/shared/api/useSession'
import { useUnits } from '@/shared/quantity/useUnits'
import ChipRow from './ChipRow.vue'
import { blankOffer, cuts, dropDigit, type Offer, pushDigit, solutions } from './offerDraft'
import PadKeys from './PadKeys.vue'
import type { Schemas } from '@/shared/api/client'

/** A tag read with one hand: cut, form, price on the pad, then the next one. */
const props = defineProps<{ offer: Offer | null; listed: Schemas['ListedOut'][] }>()
const emit = defineEmits<{ done: [offer: Offer, next: boolean]; close: [] }>()
const { kitchen } = useSession()
const { unit, unitWord } = useUnits()
const basis = computed<Offer['basis']>(() => (unit.value === 'lb' ? 'per_lb' : 'per_kg'))
const offer = reactive<Offer>(props.offer ? { ...props.offer } : blankOffer(basis.value))
/** The pad writes into the price, or into the weight of the pack. */
const field = ref<'price' | 'weight'>('price')
const weight = ref(offer.pack_weight.replace(/[^0-9.]/g, ''))
const weightUnit = ref(/[a-z]+/.exec(offer.pack_weight)?.[0] ?? unit.value)
const said = ref('')

const cutWords = cuts.map(({ word }) => ({ value: word.toLowerCase(), word }))
const known = computed(() => cuts.find(({ word }) => offer.cut.toLowerCase() === word.toLowerCase()))
const bases = computed(() => [
  { value: basis.value, word: `a ${unitWord.value}` },
  { value: 'pack' as const, word: 'the pack' },
])
const waters = solutions.map((value) => ({ value, word: value ? `${value} %` : 'no water' }))
const sign = computed(() => (kitchen.value?.currency === 'USD' ? '$' : `${kitchen.value?.currency} `))
watch(
  [weight, weightUnit],
  () => (offer.pack_weight = weight.value ? `${weight.value} ${weightUnit.value}` : ''),
)
watch(
  () => [offer.price, offer.basis, offer.pack_weight],
  () => (offer.is_sure = false),
)
watch(
  () => offer.basis,
  (now) => now === 'pack' && offer.price && !weight.value && (field.value = 'weight'),
)

function press(digit: string): void {
  if (field.value === 'price') offer.price = pushDigit(offer.price, digit)
  else weight.value = pushDigit(weight.value, digit)
}
function back(): void {
  if (field.value === 'price') offer.price = dropDigit(offer.price)
  else weight.value = dropDigit(weight.value)
}

function done(next: boolean): void {
  if (!offer.cut || !offer.price) {
    said.value = offer.cut ? 'The price is missing.' : 'Say which cut it is.'
    return
  }
  said.value = ''
  emit('done', { ...offer }, next)
  if (!next) return
  Object.assign(offer, blankOffer(offer.basis))
  weight.value = ''
  field.value = 'price'
}

function fromList(event: Event): void {
  const at = Number((event.target as HTMLSelectElement).value)
  const one = props.listed[at]
  if (!one) return
  Object.assign(offer, { cut: one.cut, price: one.price, basis: 'per_lb', solution: one.solution })
  const [amount, word] = one.pack_weight.split(' ')
  weight.value = amount ?? ''
  weightUnit.value = word ?? unit.value
}
</script>

<template>
  <form class="pad" aria-label="An offer" novalidate @submit.prevent="done(true)">
    <div class="cut">
      <ChipRow v-model="offer.cut" label="Cut" :choices="cutWords" />
      <div class="pair">
        <label class="other">
          <span class="unseen">Another cut</span>
          <input
            v-model.trim="offer.cut"
            class="box"
            type="text"
            maxlength="80"
            placeholder="another cut"
            autocomplete="off"
          />
        </label>
        <label v-if="listed.length" class="other">
          <span class="unseen">From the price list</span>
          <select class="box" @change="fromList">
            <option value="">from the price list …</option>
            <option v-for="(one, at) in listed" :key="one.cut" :value="at">
              {{ one.cut }}, {{ one.price }}/lb, {{ one.source }}
            </option>
          </select>
        </label>
      </div>
      <div class="forms">
        <ChipRow
          v-if="!known || known.skin"
          v-model="offer.skin"
          label="Skin"
          clears
          :choices="[
            { value: 'on', word: 'skin on' },
            { value: 'off', word: 'skinless' },
          ]"
        />
        <ChipRow
          v-if="!known || known.bone"
          v-model="offer.bone"
          label="Bone"
          clears
          :choices="[
            { value: 'in', word: 'bone in' },
            { value: 'out', word: 'boneless' },
          ]"
        />
        <button
          type="button"
          class="flag"
          :aria-pressed="offer.trimmed"
          @click="offer.trimmed = !offer.trimmed"
        >
          trimmed
        </button>
        <button
          type="button"
          class="flag"
          :aria-pressed="offer.enhanced"
          @click="offer.enhanced = !offer.enhanced"
        >
          enhanced
        </button>
      </div>
      <ChipRow v-model="offer.solution" label="Up to so much solution" :choices="waters" />
    </div>
    <div class="price">
      <div class="fields">
        <label class="named" :class="{ here: field === 'price' }">
          <span>Price, {{ sign }}</span>
          <input
            v-model="offer.price"
            class="box"
            type="text"
            inputmode="none"
            autocomplete="off"
            maxlength="12"
            placeholder="0.00"
            @focus="field = 'price'"
          />
        </label>
        <label class="named" :class="{ here: field === 'weight' }">
          <span>Pack weighs, {{ weightUnit }}</span>
          <input
            v-model="weight"
            class="box"
            type="text"
            inputmode="none"
            autocomplete="off"
            maxlength="12"
            placeholder="by weight"
            @focus="field = 'weight'"
          />
        </label>
      </div>
      <ChipRow v-model="offer.basis" label="The price is for" :choices="bases" />
      <PadKeys @digit="press" @back="back" />
      <p v-if="said" class="said" role="alert">{{ said }}</p>
      <div class="buttons">
        <button type="submit" class="act first">
          {{ props.offer ? 'Keep the change' : 'Add, next tag' }}
        </button>
        <button type="button" class="act" @click="done(false)">
          {{ props.offer ? 'Keep and close' : 'Add, done' }}
        </button>
        <button type="button" class="act" @click="emit('close')">Close</button>
      </div>
    </div>
  </form>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  gap: 12px 24px;
}

.cut,
.price {
  display: grid;
  gap: 8px;
  align-content: start;
}

.pair,
.forms,
.fields,
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.other {
  flex: 1 1 150px;
  min-width: 0;
}

.flag {
  min-height: 44px;
  padding: 0 12px;
  border: 1px dashed #8b9692;
  border-radius: 4px;
  background: var(--panel);
  font: inherit;
  font-weight: 600;
  font-stretch: 90%;
  color: var(--ink);
  cursor: pointer;
}

.flag[aria-pressed='true'] {
  background: var(--ink);
  color: #ffffff;
  border-style: solid;
}

.fields label {
  flex: 1 1 120px;
  min-width: 0;
}

.fields span {
  font-size: 13px;
  color: var(--quiet);
}

.fields input {
  font-size: 24px;
  font-weight: 760;
  text-align: right;
}

.fields input::placeholder {
  font-size: 16px;
  font-weight: 450;
}

.fields .here input {
  border: 2px solid var(--rose);
}

.buttons .first {
  flex: 1 1 130px;
}

.buttons .act {
  padding: 0 12px;
}

.said {
  color: var(--rose-deep);
  font-weight: 600;
}

@media (max-width: 979px) {
  .pad {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
