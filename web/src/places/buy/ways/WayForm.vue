<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import NumberBox from '@/shared/ui/NumberBox.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { useDraft } from '@/shared/writing/useDraft'
import RemoveButton from '@/shared/ui/RemoveButton.vue'

/** A method being typed: its steps, what each uses, minutes and days, and what a portion is. */
const props = defineProps<{ input: Schemas['WayIn'] | null; methods: Schemas['MethodOut'][] }>()
const emit = defineEmits<{ saved: [ways: Schemas['WaysOut']]; close: [] }>()
type Body = Schemas['WayIn']
type Step = Body['steps'][number]
const { isMetric, like } = useUnits()
const step = (method: Step['method']): Step => ({
  method,
  batch_minutes: '',
  pound_minutes: '',
  kilo_minutes: '',
  days: 0,
  used: [],
  worth: '',
})
const usual: Step['method'][] = ['trim', 'dry_cure', 'rest', 'hot_smoke', 'chill', 'slice']
const blank = (): Body =>
  props.input
    ? (JSON.parse(JSON.stringify(props.input)) as Body)
    : {
        name: '',
        steps: usual.map(step),
        portion_slices: '',
        slice_weight: '',
        portion_weight: '',
        portion_cooked: '',
        put_away: false,
      }
const { draft, clear } = useDraft<Body>(`method:${props.input?.name ?? ''}`, blank)
const { state, problem, write, retry } = useKitchenWrite('way', '/ways', { typed: () => draft })
provideFormFacts({ preview: ref(null), problem })
const groups = ['cure', 'fuel', 'packaging', 'other']
const title = computed(() => (props.input ? `Change “${props.input.name}”` : 'New method'))
const word = (key: string): string => key.replace('_', ' ')

function send(put_away: boolean): void {
  void write({ ...(JSON.parse(JSON.stringify(draft)) as Body), put_away }, (ways) => {
    clear()
    emit('saved', ways)
  })
}
</script>

<template>
  <form v-may:cook class="way" novalidate @submit.prevent="send(false)">
    <h2>{{ title }}</h2>
    <TypedInput
      v-if="!input"
      v-model="draft.name"
      label="Name"
      path="name"
      placeholder="Dry cure, apple smoke"
    />
    <ol>
      <li v-for="(one, at) in draft.steps" :key="at">
        <div class="row">
          <SelectBox v-model="one.method" :label="`Step ${at + 1}`">
            <option v-for="method in methods" :key="method.key" :value="method.key">
              {{ word(method.key) }}
            </option>
          </SelectBox>
          <TypedInput
            v-model="one.batch_minutes"
            label="Minutes per batch"
            :path="`steps[${at}].batch_minutes`"
            inputmode="decimal"
          />
          <TypedInput
            v-if="!isMetric || one.pound_minutes"
            v-model="one.pound_minutes"
            label="plus minutes per pound"
            :path="`steps[${at}].pound_minutes`"
            inputmode="decimal"
          />
          <TypedInput
            v-else
            v-model="one.kilo_minutes"
            label="plus minutes per kilogram"
            :path="`steps[${at}].kilo_minutes`"
            inputmode="decimal"
          />
          <NumberBox v-model="one.days" label="Days" :min="0" :max="400" />
          <TypedInput
            v-model="one.worth"
            label="Trim is worth"
            :path="`steps[${at}].worth`"
            :placeholder="like('2.40/lb', '5.30/kg')"
          />
          <RemoveButton :label="`Remove step ${at + 1}`" @remove="draft.steps.splice(at, 1)" />
        </div>
        <div v-for="(use, place) in one.used" :key="place" class="row use">
          <TypedInput
            v-model="use.what"
            label="Uses"
            :path="`steps[${at}].used[${place}].what`"
            placeholder="salt"
          />
          <TypedInput
            v-model="use.amount"
            label="How much"
            :path="`steps[${at}].used[${place}].amount`"
            placeholder="2.5 % or 25 g or 1"
          />
          <SelectBox v-model="use.per" label="of">
            <option value="kg">a kilogram of meat</option>
            <option value="lb">a pound of meat</option>
            <option value="batch">the batch</option>
          </SelectBox>
          <SelectBox v-model="use.group" label="counts as">
            <option v-for="group in groups" :key="group" :value="group">{{ group }}</option>
          </SelectBox>
          <TypedInput
            v-model="use.price"
            label="Price"
            :path="`steps[${at}].used[${place}].price`"
            hint="leave empty to use the price list"
            placeholder="1.20/kg"
          />
          <RemoveButton :label="`Remove ${use.what || 'this'}`" @remove="one.used.splice(place, 1)" />
        </div>
        <ActButton
          small
          @click="one.used.push({ what: '', group: 'cure', amount: '', per: 'kg', price: '' })"
        >
          + add something used
        </ActButton>
      </li>
    </ol>
    <ActButton small @click="draft.steps.push(step('chill'))">+ a step</ActButton>
    <div class="row">
      <TypedInput
        v-model="draft.portion_slices"
        label="Slices per portion"
        path="portion_slices"
        placeholder="3"
        inputmode="decimal"
      />
      <TypedInput
        v-model="draft.slice_weight"
        label="Weight of a slice"
        path="slice_weight"
        placeholder="27 g"
      />
      <TypedInput
        v-model="draft.portion_weight"
        label="or sliced weight per portion"
        path="portion_weight"
        :placeholder="like('2 oz', '60 g')"
      />
      <TypedInput
        v-model="draft.portion_cooked"
        label="or cooked weight per portion"
        path="portion_cooked"
        :placeholder="like('1 oz', '30 g')"
      />
    </div>
    <SaveBar
      :word="input ? 'Save the next version' : 'Save this method'"
      :state="state"
      :problem="problem"
      cancel-word="Close"
      @retry="retry"
      @cancel="emit('close')"
    />
    <ActButton v-if="input" small @click="send(true)">Archive this method</ActButton>
  </form>
</template>

<style scoped>
.way,
ol {
  display: grid;
  gap: 10px;
}

li {
  display: grid;
  gap: 6px;
  border-left: 3px solid var(--lean);
  padding-left: 12px;
}

.row {
  display: grid;
  grid-template-columns: 1.2fr 0.8fr 0.8fr 70px 1fr 36px;
  gap: 6px 10px;
}

.use {
  grid-template-columns: 1.2fr 1fr 1fr 0.8fr 1fr 36px;
  padding-left: 20px;
}

.row:last-of-type {
  align-items: start;
}

.way > .row {
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
}

@media (max-width: 979px) {
  .row,
  .use {
    grid-template-columns: 1fr 1fr;
    padding-left: 0;
  }
}
</style>
