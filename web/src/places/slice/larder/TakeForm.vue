<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { type Fate, fateWord } from '@/shared/parts/fates'
import { useUnits } from '@/shared/quantity/useUnits'

/** What else belongs to a way out: the price it was sold for, the dish, the batch it went into, why. */
const props = defineProps<{ fate: Fate; what: string; batches: string[] }>()
const emit = defineEmits<{ take: [more: { income?: string; dish?: string; into?: string; why?: string }] }>()
const { sign } = useUnits()
const text = ref('')
const income = ref('')
const asks = computed(
  () =>
    (
      ({
        plated: { word: 'As which dish', example: 'Harbor roll' },
        sold: { word: 'To whom, if it matters', example: '' },
        spoiled: { word: 'Why', example: 'thawed and forgotten' },
        discarded: { word: 'Why', example: 'dried out' },
      }) as Partial<Record<Fate, { word: string; example: string }>>
    )[props.fate],
)
function take(): void {
  const more: { income?: string; dish?: string; into?: string; why?: string } = {}
  if (props.fate === 'used') more.into = text.value
  else if (props.fate === 'plated') more.dish = text.value
  else more.why = text.value
  if (income.value) more.income = income.value
  emit('take', more)
}
</script>

<template>
  <form v-may:helper @submit.prevent="take">
    <SelectBox v-if="fate === 'used'" v-model="text" label="In which batch">
      <option value="">not one recorded here</option>
      <option v-for="code in batches" :key="code" :value="code">{{ code }}</option>
    </SelectBox>
    <TypedInput
      v-else-if="asks"
      v-model="text"
      :label="asks.word"
      maxlength="80"
      :placeholder="asks.example"
    />
    <TypedInput
      v-if="fate === 'sold' || fate === 'plated'"
      v-model="income"
      :label="`What it brought in (${sign.trim()})`"
      inputmode="decimal"
      placeholder="4.50"
    />
    <ActButton first submit>Record {{ what }} {{ fateWord(fate) }}</ActButton>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}
</style>
