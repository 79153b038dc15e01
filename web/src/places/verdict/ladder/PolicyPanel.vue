<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { computed } from 'vue'
import { api, type Policy, type Settings, take, type Verdict } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import DropPanel from '@/shared/ui/DropPanel.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import PolicyFields from '@/shared/ui/PolicyFields.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { useWrite } from '@/shared/writing/useWrite'
import { samePolicy } from './useTrial'

/** What is counted: flipping one shows at once how the verdict moves; saved only on request. */
const props = defineProps<{ verdict: Verdict }>()
const emit = defineEmits<{ kept: [] }>()
const policy = defineModel<Policy>('policy', { required: true })
const slug = useSlug()
const { money } = useUnits()

const rate = computed(() => policy.value.labour_rate ?? '')
const word = computed(() => {
  if (!samePolicy(policy.value, props.verdict.policy)) return 'Changed, not saved'
  return rate.value ? `Work counted, ${money(rate.value)}` : 'Work not counted'
})
const differs = computed(() => !samePolicy(policy.value, props.verdict.policy))
const differsFromKitchen = computed(() => !samePolicy(policy.value, props.verdict.kitchen_policy))

const batch = useKitchenWrite(`${props.verdict.code}:policy`, '/batches/{code}/entries', {
  path: () => ({ code: props.verdict.code }),
})
const kitchen = useWrite<Policy, Settings>('policy', async (wanted) => {
  const params = { path: { kitchen_slug: slug.value } }
  const now = await take(api.GET('/api/kitchens/{kitchen_slug}/settings', { params }))
  const { labour_rate, by_products, fuel, packaging, overhead } = wanted
  return take(
    api.PUT('/api/kitchens/{kitchen_slug}/settings', {
      params,
      body: { ...now, labour_rate, by_products, fuel, packaging, overhead },
    }),
  )
})
const keepForBatch = (): void =>
  void batch.write(
    { content: { ...policy.value, act: 'policy' }, seen: props.verdict.seen, reason: '' },
    () => emit('kept'),
  )
const keepForKitchen = (): void => void kitchen.write({ ...policy.value }, () => emit('kept'))
const trouble = computed(() => batch.problem.value ?? kitchen.problem.value)
</script>

<template>
  <DropPanel :word="word" wide>
    <h2>What is counted</h2>
    <PolicyFields v-model:policy="policy" />
    <p class="quiet small">The verdict changes at once; nothing is saved until you say so.</p>
    <ProblemNote v-if="trouble" :problem="trouble" retry-word="" />
    <div class="acts">
      <ActButton v-may:helper small first :disabled="!differs" @click="keepForBatch">
        Save for this batch
      </ActButton>
      <ActButton v-may:owner small :disabled="!differsFromKitchen" @click="keepForKitchen">
        Save for the kitchen
      </ActButton>
    </div>
    <p class="quiet small">The kitchen’s setting applies to batches started from then on.</p>
  </DropPanel>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 8px 0;
}

.act:disabled {
  opacity: 0.5;
  cursor: default;
}
</style>
