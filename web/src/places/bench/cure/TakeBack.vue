<script setup lang="ts">
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { reactive, ref, toRef } from 'vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { useShowCures } from './usePutIn'

/** A cure put down by mistake counts no more: why is said, and both stay readable. */
const props = defineProps<{ code: string; cure: number }>()
const show = useShowCures(toRef(props, 'code'))
const draft = reactive({ reason: '' })
const { state, problem, write, retry } = useKitchenWrite(
  `${props.code}:${props.cure}:take-back`,
  '/batches/{code}/cures/{cure_id}/take-back',
  { path: () => ({ code: props.code, cure_id: props.cure }) },
)
provideFormFacts({ preview: ref(null), problem })
function send(): void {
  void write({ ...draft }, show)
}
</script>

<template>
  <form v-may:cook @submit.prevent="send">
    <TypedInput
      v-model="draft.reason"
      label="Why it should not count"
      path="reason"
      placeholder="it was for piece B"
    />
    <SaveBar word="Cancel this cure" :state="state" :problem="problem" @retry="retry" />
  </form>
</template>
