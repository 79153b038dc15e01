<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { momentText } from '@/shared/quantity/when'
import ReasonForm from '@/shared/ui/ReasonForm.vue'
import { useDishWrites } from './useDishes'

/** Plates served of late; what was not served goes back into the larder. */
defineProps<{ served: Schemas['PlatesOut'][] }>()
const emit = defineEmits<{ changed: [] }>()
const { money } = useUnits()
const { canceling } = useDishWrites()
const wrong = ref<number | null>(null)
const reason = ref('')
function cancel(): void {
  if (wrong.value === null) return
  void canceling.write({ id: wrong.value, reason: reason.value }, () => {
    wrong.value = null
    reason.value = ''
    emit('changed')
  })
}
</script>

<template>
  <section class="panel" aria-label="Plates served">
    <h2>Plates served</h2>
    <ol class="lines">
      <li v-for="one in served" :key="one.id" :class="{ wrong: one.canceled }">
        <span
          ><b>{{ one.plates }}</b> {{ money(one.income) }}
          <span class="quiet small">{{ momentText(one.at) }}, {{ one.by }}</span></span
        >
        <span v-if="one.canceled" class="quiet small">canceled: {{ one.canceled }}</span>
        <ActButton v-else v-may:cook small @click="wrong = one.id">Undo</ActButton>
      </li>
      <li v-if="!served.length" class="quiet">none yet</li>
    </ol>
    <ReasonForm
      v-if="wrong !== null"
      v-model="reason"
      word="Put it back into the larder"
      :problem="canceling.problem.value"
      @done="cancel"
    />
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 8px;
}

li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 12px;
  align-items: center;
}

.wrong b {
  text-decoration: line-through;
}
</style>
