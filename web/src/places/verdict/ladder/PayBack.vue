<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { api, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useAsking } from '@/shared/asking/useAsking'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { provideFormFacts } from '@/shared/writing/formFacts'

/** A slicer or sealer: after how many batches like this one it is paid. */
const props = defineProps<{ code: string; hourly: string | null }>()
const slug = useSlug()
const { money } = useUnits()
const machine = reactive({ price: '', minutes: '', kept_more: '' })
const { answer } = useAsking(
  'pay-back',
  () => (machine.price ? { code: props.code, machine } : null),
  ({ code, machine }) =>
    take(
      api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/pay-back', {
        params: { path: { kitchen_slug: slug.value, code } },
        body: machine,
      }),
    ),
)
const paid = computed(() => (answer.value && !answer.value.problems?.length ? answer.value : null))
const preview = computed(
  () => answer.value && { readings: [], asks: [], shops: [], problems: answer.value.problems ?? [] },
)
provideFormFacts({ preview, problem: ref(null) })
</script>

<template>
  <section class="panel" aria-label="Would a machine pay">
    <h2>Would a slicer or sealer pay off?</h2>
    <div class="fields">
      <TypedInput
        v-model="machine.price"
        label="It costs"
        path="price"
        placeholder="180"
        inputmode="decimal"
      />
      <TypedInput
        v-model="machine.minutes"
        label="Minutes saved per batch"
        path="minutes"
        placeholder="25"
        inputmode="decimal"
      />
      <TypedInput
        v-model="machine.kept_more"
        label="Saved from loss, %"
        path="kept_more"
        placeholder="2"
        inputmode="decimal"
      />
    </div>
    <p v-if="paid" aria-live="polite">
      <template v-if="paid.batches !== null">
        Pays for itself after <b>{{ paid.batches }} {{ paid.batches === 1 ? 'batch' : 'batches' }}</b> like
        this one<template v-if="paid.years">, {{ paid.years }} years at your pace</template>: it saves
        {{ money(paid.saved) }} per batch, {{ money(paid.saved_by_minutes) }} of it in work.
      </template>
      <template v-else>It never pays for itself: it saves nothing on a batch like this one.</template>
    </p>
    <p v-if="!hourly" class="quiet small">
      Work has no price here, so minutes save no money. Set one under “What is counted”.
    </p>
    <p v-else class="quiet small">
      Work at {{ money(hourly) }} an hour; meat saved from loss counts as sliced.
    </p>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 8px;
  margin-top: 6px;
  align-items: end;
}
</style>
