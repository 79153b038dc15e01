<script setup lang="ts">
import { useDraft } from '@/shared/writing/useDraft'
import ActButton from '@/shared/ui/ActButton.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { type Schemas } from '@/shared/api/client'
import RemoveButton from '@/shared/ui/RemoveButton.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'

/** A new trial: its name, and what stands side by side. */
const router = useRouter()
const queries = useQueryClient()
const MOST = 6
const { draft, clear } = useDraft<Schemas['CureTrialIn']>('trial', () => ({
  name: '',
  sides: [
    { batch: '', mark: '', what: '' },
    { batch: '', mark: '', what: '' },
  ],
}))
const beginning = useKitchenWrite('trial', '/trials', { typed: () => draft })
provideFormFacts({ preview: ref(null), problem: beginning.problem })
/** Another piece of the same batch is the likeliest next side. */
const addSide = (): void =>
  void draft.sides.push({ batch: draft.sides.at(-1)?.batch ?? '', mark: '', what: '' })
function begin(): void {
  const body = {
    name: draft.name,
    sides: draft.sides.map((side) => ({
      ...side,
      batch: side.batch.trim().toUpperCase(),
      mark: (side.mark ?? '').trim(),
    })),
  }
  void beginning.write(body, (trial) => {
    clear()
    void queries.invalidateQueries({ queryKey: ['trials'] })
    void router.push({ name: 'trial', params: { id: trial.id } })
  })
}
</script>

<template>
  <form v-may:cook class="panel lines" aria-label="A new trial" @submit.prevent="begin">
    <TypedInput
      v-model="draft.name"
      label="What is tried"
      path="name"
      placeholder="Lantern belly: how much salt"
    />
    <fieldset v-for="(side, at) in draft.sides" :key="at">
      <legend>Side {{ 'ABCDEF'[at] }}</legend>
      <TypedInput
        v-model="side.what"
        label="What is different"
        :path="`sides[${at}].what`"
        :placeholder="at ? 'less salt' : 'house rub'"
      />
      <TypedInput v-model="side.batch" label="Batch" :path="`sides[${at}].batch`" placeholder="J-31" />
      <TypedInput
        v-model="side.mark"
        label="Piece"
        :path="`sides[${at}].mark`"
        placeholder="A"
        hint="empty: the whole batch"
      />
      <RemoveButton
        v-if="draft.sides.length > 2"
        :label="`Remove side ${'ABCDEF'[at]}`"
        @remove="draft.sides.splice(at, 1)"
      />
    </fieldset>
    <ActButton v-if="draft.sides.length < MOST" small @click="addSide"> + another side </ActButton>
    <SaveBar
      word="Begin the trial"
      :state="beginning.state.value"
      :problem="beginning.problem.value"
      @retry="beginning.retry()"
    />
  </form>
</template>

<style scoped>
form {
  margin-bottom: 14px;
}

fieldset {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr auto;
  gap: 6px 12px;
  border: 0;
  margin: 0;
  padding: 0;
  align-items: start;
}

legend {
  font-weight: 700;
  padding: 0;
}

@media (max-width: 619px) {
  fieldset {
    grid-template-columns: 1fr 1fr;
  }

  fieldset > :nth-child(2) {
    grid-column: 1 / -1;
  }
}
</style>
