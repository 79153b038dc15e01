<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import ChipRow from './ChipRow.vue'
import { cuts, type Offer, solutions } from './offerDraft'

/** What a tag says in words: cut and form, enhanced or not, how much water; or a line of the price list. */
const props = defineProps<{ listed: Schemas['ListedOut'][] }>()
const offer = defineModel<Offer>('offer', { required: true })
const emit = defineEmits<{ listed: [one: Schemas['ListedOut']] }>()
const cutWords = cuts.map(({ word }) => ({ value: word.toLowerCase(), word }))
const known = computed(() => cuts.find(({ word }) => offer.value.cut.toLowerCase() === word.toLowerCase()))
const waters = solutions.map((value) => ({ value, word: value ? `${value} %` : 'no water' }))

function choose(at: number): void {
  const one = props.listed[at]
  if (one) emit('listed', one)
}
</script>

<template>
  <div class="cut">
    <ChipRow v-model="offer.cut" label="Cut" :choices="cutWords" />
    <div class="pair">
      <TypedInput
        v-model.trim="offer.cut"
        class="other"
        label="Another cut"
        quiet-label
        placeholder="another cut"
      />
      <SelectBox
        v-if="listed.length"
        class="other"
        label="From the price list"
        quiet-label
        :model-value="-1"
        @update:model-value="choose"
      >
        <option :value="-1">from the price list …</option>
        <option v-for="(one, at) in listed" :key="one.cut" :value="at">
          {{ one.cut }}, {{ one.price }}/lb, {{ one.source }}
        </option>
      </SelectBox>
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
    <ChipRow v-model="offer.solution" label="Added solution, up to %" :choices="waters" />
  </div>
</template>

<style scoped>
.cut {
  display: grid;
  gap: 8px;
  align-content: start;
}

.pair,
.forms {
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
</style>
