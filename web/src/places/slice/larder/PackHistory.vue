<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { type PackPage, useLarderWrites } from '@/places/slice/useLarder'
import { momentText } from '@/shared/quantity/when'
import ReasonForm from '@/shared/ui/ReasonForm.vue'

/** What happened to a pack, in order; what did not happen is canceled, and stays in sight. */
const props = defineProps<{ page: PackPage }>()
const emit = defineEmits<{ changed: [] }>()
const { canceling, packCanceling, renew } = useLarderWrites()
/** The taking that did not happen, or the pack itself. */
const wrong = ref<number | 'pack' | null>(null)
const reason = ref('')
const problem = computed(() => canceling.problem.value ?? packCanceling.problem.value)
function cancel(): void {
  const { code, mark } = props.page.pack
  const done = (): void => {
    wrong.value = null
    reason.value = ''
    renew()
    emit('changed')
  }
  if (wrong.value === 'pack') void packCanceling.write({ code, mark, reason: reason.value }, done)
  else if (wrong.value !== null) void canceling.write({ id: wrong.value, reason: reason.value }, done)
}
</script>

<template>
  <section class="panel lines" aria-label="What happened to it">
    <h2>What happened to it</h2>
    <ol class="lines">
      <li v-for="(one, place) in page.news" :key="place" :class="{ wrong: one.is_canceled }">
        <span class="quiet small">{{ momentText(one.at) }}, {{ one.by }}</span>
        <span>{{ one.words }}</span>
        <ActButton v-if="one.taken" v-may:cook small @click="wrong = one.taken"> Undo </ActButton>
      </li>
    </ol>
    <ActButton v-if="!page.pack.is_gone" v-may:cook small @click="wrong = 'pack'">
      This pack was recorded by mistake
    </ActButton>
    <ReasonForm
      v-if="wrong !== null"
      v-model="reason"
      word="Cancel it: it stays in the history"
      :problem="problem"
      @done="cancel"
    />
  </section>
</template>

<style scoped>
li {
  display: grid;
  gap: 2px;
  justify-items: start;
}

.wrong span:nth-child(2) {
  text-decoration: line-through;
}
</style>
