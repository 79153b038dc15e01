<script setup lang="ts">
import DateBox from '@/shared/ui/DateBox.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import { computed } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import TypedInput from '@/shared/ui/TypedInput.vue'
import type { Schemas } from '@/shared/api/client'
import type { Case } from './useCase'

/** What the meat is for: how it is made, the shop pack it must beat, how much, for which day. */
const props = defineProps<{ choices: Schemas['ChoicesOut'] }>()
const plan = defineModel<Case>('plan', { required: true })

const { costText, like, unitWord } = useUnits()

/** A method of the kitchen's own, else what the meat is to become by the standard one. */
const made = computed({
  get: () => (plan.value.way ? `by ${plan.value.way}` : plan.value.course),
  set: (to) => {
    const found = props.choices.courses.find((one) => one.course === to)
    Object.assign(plan.value, found ? { way: '', course: found.course } : { way: to.slice('by '.length) })
  },
})

function setDay(day: string): void {
  plan.value.on = day || null
}
</script>

<template>
  <div class="plan">
    <SelectBox v-model="made" label="Method">
      <optgroup v-if="choices.ways.length" label="Methods">
        <option v-for="way in choices.ways" :key="way.name" :value="`by ${way.name}`">
          {{ way.name }}
        </option>
      </optgroup>
      <optgroup label="The standard method, to be">
        <option v-for="one in choices.courses" :key="one.course" :value="one.course">
          {{ one.label }}
        </option>
      </optgroup>
    </SelectBox>
    <SelectBox v-model="plan.against" label="Compare with">
      <option value="">the usual one (good)</option>
      <option v-for="shop in choices.shops" :key="shop.name" :value="shop.name">
        {{ shop.name }}, {{ costText(shop.price) }} a {{ unitWord }}
      </option>
    </SelectBox>
    <TypedInput
      v-model="plan.about"
      label="Buying about"
      path="about"
      hint="meat as bought"
      :placeholder="like('20 lb', '10 kg')"
    />
    <TypedInput
      v-model="plan.portions"
      label="Or for how many portions"
      path="portions"
      hint="then it shows how much to buy"
      placeholder="60"
      inputmode="numeric"
    />
    <DateBox label="To be eaten on" :model-value="plan.on ?? ''" @update:model-value="setDay" />
    <p class="links small">
      <RouterLink :to="{ name: 'ways' }">Methods and what they use</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.plan {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 8px 14px;
  align-items: start;
}

.links {
  align-self: end;
  padding-bottom: 20px;
}
</style>
