<script setup lang="ts">
import TickBox from '@/shared/ui/TickBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { type Batch } from '@/shared/api/client'
import SaveBar from '@/shared/ui/SaveBar.vue'

/** Looking the meat over before it is cut: tick what was found, and what to do is said at once. */
const props = defineProps<{ batch: Batch }>()
const queries = useQueryClient()
const { data: looks } = useKitchenQuery('looks', '/looks')
const found = ref<string[]>([])
const note = ref('')
const { state, problem, write, retry } = useKitchenWrite(
  `${props.batch.code}:look`,
  '/batches/{code}/look-overs',
  { path: () => ({ code: props.batch.code }) },
)
function send(): void {
  void write({ found: found.value, note: note.value }, () => {
    void queries.invalidateQueries({ queryKey: ['diary'] })
    found.value = []
    note.value = ''
  })
}
</script>

<template>
  <form v-may:cook @submit.prevent="send">
    <ul aria-label="What to check for">
      <li
        v-for="look in looks"
        :key="look.key"
        :class="{ found: found.includes(look.key), stops: look.stops }"
      >
        <TickBox v-model="found" :value="look.key">{{ look.question }}</TickBox>
        <p v-if="found.includes(look.key)" class="do">
          <span aria-hidden="true">▲</span> {{ look.what_to_do }}
        </p>
      </li>
    </ul>
    <TypedInput v-model="note" label="Where, what else" maxlength="200" />
    <p v-if="state === 'saved'" class="good" role="status">✓ Saved in the diary.</p>
    <SaveBar
      :word="found.length ? 'Save what was found' : 'Checked, nothing found'"
      :state="state"
      :problem="problem"
      @retry="retry"
    />
    <p class="quiet small">Common practice. Do not cure meat that smells off.</p>
  </form>
</template>

<style scoped>
form,
ul {
  display: grid;
  gap: 8px;
}

li {
  padding-left: 10px;
  border-left: 4px solid var(--edge);
}

li.found {
  border-left-color: var(--care);
}

li.found.stops {
  border-left-color: var(--rose);
}

.do {
  padding-bottom: 6px;
  font-weight: 600;
}
</style>
