<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { Batch } from '@/shared/api/client'
import { afterWord, stepWord } from '@/shared/parts/stepWords'
import { capital } from '@/shared/quantity/capital'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import NotOnBill from '@/shared/ui/NotOnBill.vue'
import CutParts from './CutParts.vue'
import PieceCards from './PieceCards.vue'
import StepChoice from './StepChoice.vue'
import type { Part, useWeighing } from './useWeighing'

type Work = ReturnType<typeof useWeighing>
type Draft = Work['draft']
/** Beside the scale: the batch, the step it is weighed for, and its pieces or the parts of the cut. */
const props = defineProps<{ batch: Batch; kind: string; work: Work; unpriced?: string[] }>()
const emit = defineEmits<{ choose: [mark: string]; remove: [] }>()
const draft = defineModel<Draft>('draft', { required: true })
/** The by-product that is weighed next, where it is none of the pieces. */
const off = defineModel<Part | null>('off', { required: true })
const router = useRouter()
const words: Record<string, string> = { weigh: 'On the scale', cure: 'Out of the cure' }
const title = computed(() => words[props.kind] ?? capital(afterWord(props.kind)))

const heats = [
  { value: 'hot' as const, word: 'Hot smoke' },
  { value: 'cold' as const, word: 'Cold: stays raw' },
]
const heat = computed({
  get: () => props.work.heat.value,
  set: (value) => (draft.value.heat = value),
})

function remove(place: number): void {
  draft.value.parts.splice(place, 1)
  emit('remove')
}
/** The step weighed for can be another one than expected. */
function step(to: string): void {
  void router.replace({ name: 'weigh', params: { code: props.batch.code }, query: { kind: to } })
}
</script>

<template>
  <aside>
    <p class="batch">
      {{ batch.name }} <b>{{ batch.code }}</b>
    </p>
    <h1>{{ title }}</h1>
    <StepChoice :kind="kind" @choose="step" />
    <CutParts
      v-if="work.isCut.value"
      v-model:off="off"
      v-model:piece="draft.piece"
      :marks="work.rows.value.map((row) => row.mark)"
      :current="work.cutPiece.value?.mark ?? ''"
      :parts="draft.parts"
      :next-mark="work.nextMark.value"
      :kind="kind"
      @remove="remove"
    />
    <template v-else>
      <PieceCards
        :rows="work.rows.value"
        :current="work.current.value?.mark ?? ''"
        :before="`before ${stepWord(kind)}`"
        @choose="(mark) => emit('choose', mark)"
      />
      <NotOnBill v-if="kind === 'cure'" :names="unpriced" />
      <ChoiceBar v-if="kind === 'smoke'" v-model="heat" label="The smoke was" :choices="heats" quiet-label />
      <RouterLink class="more" :to="{ name: 'weigh', params: { code: batch.code }, query: { kind: 'trim' } }">
        + add something cut off
      </RouterLink>
    </template>
  </aside>
</template>

<style scoped>
aside {
  grid-area: aside;
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 20px 22px;
}

.batch {
  font-weight: 640;
  font-size: 18px;
  color: #a9b4b0;
}

.batch b {
  color: #eef2ef;
  white-space: nowrap;
}

h1 {
  font-size: 30px;
}

/* chosen is what is lit, on a dark ground as well */
aside :deep(.n-radio-group .n-radio-button.n-radio-button) {
  min-height: 52px;
  align-content: center;
  border-color: #3a4447;
  background: transparent;
  color: #dfe6e2;
}

aside :deep(.n-radio-group .n-radio-button.n-radio-button--checked.n-radio-button--checked) {
  border-color: #e05f7b;
  background: #e05f7b;
  color: #1a0d10;
  font-weight: 700;
}

.more {
  display: grid;
  place-items: center;
  min-height: 52px;
  border: 2px dashed #3a4447;
  border-radius: 5px;
  color: #b9c3bf;
  text-decoration: none;
}

@media (max-width: 719px) {
  aside {
    padding: 14px 16px 0;
    gap: 8px;
  }

  .batch {
    font-size: 15px;
  }

  h1 {
    font-size: 22px;
  }

  .more {
    min-height: 44px;
  }
}
</style>
