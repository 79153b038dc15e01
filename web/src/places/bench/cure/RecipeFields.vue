<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { computed, ref } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import TypedInput from '@/shared/ui/TypedInput.vue'
import MixedBrine from './MixedBrine.vue'
import { changeSchool, type Cured, ingredient, type Recipe, type School, shows } from './recipes'
import type { DeskFacts } from './useDesk'

/** A recipe's few fields, those of its school and no others. */
const props = defineProps<{ facts: DeskFacts; piece: Cured; path: string }>()
/** A brine given as it was mixed: by the cup and the quart. */
const asMixed = ref(false)
const MIXED = ['mixed_water', 'mixed_salt', 'mixed_sugar', 'mixed_agent'] as const
const recipe = defineModel<Recipe>('recipe', { required: true })
const { degrees } = useUnits()
const school = computed({
  get: () => recipe.value.school,
  set: (to: School) => (recipe.value = changeSchool(props.facts.schools, recipe.value, to, props.piece)),
})
/** Whether recipes of this school say something. */
const has = (field: Parameters<typeof shows>[2]): boolean => shows(props.facts.schools, school.value, field)
const agents = computed(() => props.facts.agents.filter((one) => !has('packet') || one.is_ready_mixed))
const agent = computed(() => props.facts.agents.find((one) => one.key === recipe.value.agent))
const byLabel = computed(() => !!agent.value && agent.value.nitrite === null)
const hasDose = computed(
  () => has('agent') && recipe.value.agent !== 'weak' && recipe.value.agent !== 'none' && !isMixed.value,
)
const isMixed = computed({
  get: () => has('tub') && (asMixed.value || MIXED.some((key) => recipe.value[key] !== '')),
  set: (to) => {
    asMixed.value = to
    if (!to) for (const key of MIXED) recipe.value[key] = ''
  },
})
/** What salt and sugar are a share of: a brine that covers the meat salts the water too. */
const base = computed(() => (has('tub') ? 'meat and water' : 'the meat'))
const amountWord = computed(() => (has('spoons') ? 'Amount, like 2 tsp/lb' : `Amount, % of ${base.value}`))
const sugarWord = computed(() =>
  has('spoons') ? 'Amount of it, like 1 tsp/lb' : `Amount of it, % of ${base.value}`,
)
const saltWord = computed(() => (has('box') ? 'Salt of the box' : 'Salt'))
</script>

<template>
  <div class="fields">
    <SelectBox v-model="school" label="Curing method">
      <option v-for="one in facts.schools" :key="one.key" :value="one.key">{{ one.label }}</option>
    </SelectBox>
    <SelectBox v-if="has('agent')" v-model="recipe.agent" label="Curing salt">
      <option v-for="one in agents" :key="one.key" :value="one.key">
        {{ one.label }}{{ Number(one.nitrite) ? `, ${Number(one.nitrite)} % nitrite` : '' }}
      </option>
      <option v-if="!has('packet')" value="none">none: without nitrite</option>
    </SelectBox>
    <p v-if="has('agent') && agent" class="quiet small wide">For {{ agent.purpose }}.</p>
    <template v-if="!has('packet')">
      <TypedInput
        v-model="recipe.salt.name"
        :label="saltWord"
        :path="`${path}salt.name`"
        placeholder="coarse salt"
      />
      <TypedInput
        v-if="has('box')"
        v-model="recipe.box"
        label="In the box, % of the meat"
        :path="`${path}box`"
        placeholder="100 %"
      />
      <TypedInput
        v-else-if="!isMixed"
        v-model="recipe.salt.amount"
        :label="amountWord"
        :path="`${path}salt.amount`"
        placeholder="2.5 %"
      />
    </template>
    <template v-if="hasDose">
      <TypedInput
        v-if="!byLabel && !has('packet')"
        v-model="recipe.target"
        label="Nitrite wanted, ppm"
        :path="`${path}target`"
        placeholder="150"
        :hint="recipe.agent_amount ? 'or leave the amount empty' : ''"
      />
      <TypedInput
        v-model="recipe.agent_amount"
        :label="has('packet') ? 'The packet’s rate' : 'or curing salt, % or spoons'"
        :path="`${path}agent_amount`"
        :placeholder="has('packet') ? '25 g for 1 kg' : '0.25 %'"
      />
    </template>
    <TypedInput
      v-if="has('agent') && (byLabel || recipe.agent_nitrite)"
      v-model="recipe.agent_nitrite"
      label="Nitrite from its label, %"
      :path="`${path}agent_nitrite`"
      placeholder="not known"
    />
    <template v-if="!has('packet')">
      <TypedInput
        v-model="recipe.sugar.name"
        label="Sugar"
        :path="`${path}sugar.name`"
        placeholder="brown sugar"
      />
      <TypedInput
        v-if="!isMixed"
        v-model="recipe.sugar.amount"
        :label="sugarWord"
        :path="`${path}sugar.amount`"
        placeholder="none"
      />
    </template>
    <TickBox v-if="has('tub')" v-model="isMixed" class="wide"
      >Give the brine as it was mixed, for the whole tub</TickBox
    >
    <MixedBrine v-if="isMixed" v-model:recipe="recipe" :path="path" />
    <TypedInput
      v-if="has('water') && !isMixed"
      v-model="recipe.water"
      label="Water, % of the meat"
      :path="`${path}water`"
      placeholder="100 %"
    />
    <TypedInput
      v-if="has('pump')"
      v-model="recipe.pump"
      label="Pump: weight gained, %"
      :path="`${path}pump`"
      placeholder="10 %"
    />
    <TypedInput
      v-if="has('pick_up')"
      v-model="recipe.pick_up"
      label="Pick-up, if measured, %"
      :path="`${path}pick_up`"
      placeholder="10 %"
    />
    <TypedInput
      v-if="has('spare')"
      v-model="recipe.spare"
      label="Extra brine, %"
      :path="`${path}spare`"
      placeholder="10 %"
    />
    <TypedInput
      v-if="has('box')"
      v-model="recipe.uptake"
      label="Salt you expect it to take, %"
      :path="`${path}uptake`"
      placeholder="not known"
    />
    <template v-if="has('brine')">
      <TypedInput
        v-model="recipe.hot_part"
        label="Hot part of the water, %"
        :path="`${path}hot_part`"
        placeholder="25 %"
      />
      <TypedInput
        v-model="recipe.hot_water"
        label="Hot water"
        :path="`${path}hot_water`"
        :placeholder="degrees === 'F' ? '212 °F' : '100 °C'"
      />
      <TypedInput
        v-model="recipe.cold_water"
        label="Cold water"
        :path="`${path}cold_water`"
        :placeholder="degrees === 'F' ? '40 °F' : '4 °C'"
      />
    </template>
    <div v-for="(extra, place) in recipe.extras" :key="place" class="extra wide">
      <TypedInput
        v-model="extra.name"
        label="Also"
        :path="`${path}extras[${place}].name`"
        placeholder="black pepper"
      />
      <TypedInput
        v-model="extra.amount"
        label="Amount, % of the meat"
        :path="`${path}extras[${place}].amount`"
        placeholder="0.5 %"
      />
      <SelectBox v-model="extra.spoon" label="A spoon of it weighs like">
        <option value="">not known</option>
        <option v-for="one in facts.spoons" :key="one.key" :value="one.key">{{ one.label }}</option>
      </SelectBox>
      <TickBox
        v-if="has('stages')"
        :model-value="extra.stage === 2"
        @update:model-value="extra.stage = $event ? 2 : 1"
        >second stage</TickBox
      >
      <ActButton small @click="recipe.extras.splice(place, 1)">Remove</ActButton>
    </div>
    <ActButton class="wide add" small @click="recipe.extras.push(ingredient())">
      + pepper, herbs, syrup …
    </ActButton>
    <SelectBox
      v-if="!has('packet')"
      v-model="recipe.salt.spoon"
      class="wide"
      label="A spoon of this salt weighs like"
    >
      <option value="">not known</option>
      <option v-for="one in facts.spoons" :key="one.key" :value="one.key">
        {{ one.label }}, {{ Number(one.grams) }} g per teaspoon{{ one.is_own ? ' (your own)' : '' }}
      </option>
    </SelectBox>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px 12px;
  align-items: start;
}

.wide {
  grid-column: 1 / -1;
}

.add {
  justify-self: start;
  margin-bottom: 6px;
}

.extra {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px 12px;
  padding-left: 10px;
  border-left: 3px solid var(--edge);
  margin-bottom: 6px;
}
</style>
