<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DateBox from '@/shared/ui/DateBox.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import ReasonForm from '@/shared/ui/ReasonForm.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'

/** Machines that are to pay for themselves: what each cost, and what was saved since. */
defineProps<{ tools: Schemas['ToolOut'][] }>()
const queries = useQueryClient()
const { money } = useUnits()
const isAdding = ref(false)
const removed = ref<number | null>(null)
const reason = ref('')
const draft = ref({ name: '', paid: '', bought_on: '' })

const bought = useKitchenWrite('tool', '/tools', { typed: () => draft.value })
const canceled = useKitchenWrite<'/tools/{tool_id}/cancel', { id: number; reason: string }>(
  'tool-gone',
  '/tools/{tool_id}/cancel',
  { path: (body) => ({ tool_id: body.id }), body: (body) => ({ reason: body.reason }) },
)
provideFormFacts({ preview: ref(null), problem: bought.problem })
function renew(): void {
  isAdding.value = false
  removed.value = null
  reason.value = ''
  draft.value = { name: '', paid: '', bought_on: '' }
  void queries.invalidateQueries({ queryKey: ['books', 'money'] })
}
</script>

<template>
  <section class="panel" aria-label="Machines">
    <h2>Has it paid for itself?</h2>
    <p v-if="!tools.length && !isAdding" class="quiet">
      Record a slicer or sealer, and this says when it has.
    </p>
    <ul>
      <li v-for="tool in tools" :key="tool.id">
        <p>
          <b>The {{ tool.name }}</b> {{ tool.said }}.
        </p>
        <p class="quiet small">{{ money(tool.paid) }} on {{ dayText(tool.bought_on) }}</p>
        <ReasonForm
          v-if="removed === tool.id"
          v-model="reason"
          word="Remove it"
          :problem="canceled.problem.value"
          @done="canceled.write({ id: tool.id, reason }, renew)"
        />
        <ActButton v-else v-may:cook small @click="removed = tool.id"> Recorded by mistake </ActButton>
      </li>
    </ul>
    <form v-if="isAdding" class="lines" @submit.prevent="bought.write({ ...draft }, renew)">
      <TypedInput v-model="draft.name" label="Machine" path="name" placeholder="slicer" />
      <TypedInput v-model="draft.paid" label="Paid" path="paid" placeholder="180.00" inputmode="decimal" />
      <DateBox v-model="draft.bought_on" label="Bought on" required min="2000-01-01" max="2199-12-31" />
      <SaveBar
        word="Save the machine"
        :state="bought.state.value"
        :problem="bought.problem.value"
        @retry="bought.retry()"
      />
    </form>
    <ActButton v-else v-may:cook small @click="isAdding = true">Add a machine</ActButton>
  </section>
</template>

<style scoped>
ul {
  display: grid;
  gap: 10px;
  margin: 8px 0;
}
</style>
