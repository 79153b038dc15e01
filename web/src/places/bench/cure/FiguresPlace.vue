<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { useDraft } from '@/shared/writing/useDraft'
import FigureTable from './FigureTable.vue'
import { useDeskFacts } from './useDesk'

/** The figures the cure desk judges by: limits and spoons, the kitchen's own where it has them, and mixes. */
const { data: facts, error, refetch, put } = useDeskFacts()
const { draft: mix } = useDraft<Schemas['MixIn']>('mix', () => ({ recipe: '', weight: '', note: '' }))
const mixing = useKitchenWrite('mix', '/mixes')
const said = ref('')
provideFormFacts({ preview: ref(null), problem: mixing.problem })
function make(): void {
  said.value = ''
  void mixing.write({ ...mix }, (now) => {
    put(now)
    said.value = `Saved: ${mix.weight} of ${mix.recipe}.`
    Object.assign(mix, { weight: '', note: '' })
  })
}
const { like } = useUnits()
</script>

<template>
  <div class="head">
    <h1>Nitrite limits and spoon weights</h1>
    <span class="quiet">what the cure desk uses</span>
  </div>
  <LoadState v-if="!facts" :error="error" what="the figures" @retry="refetch()" />
  <div v-else class="figures">
    <section class="panel" aria-label="Nitrite limits">
      <h2>Nitrite going in, at most</h2>
      <p class="quiet small">
        Parts per million of sodium nitrite by weight on the green meat. Enter what your local food authority
        says; your own figure replaces the table’s, with its source.
      </p>
      <FigureTable
        sort="limit"
        unit="ppm"
        :rows="facts.limits.map((one) => ({ ...one, value: one.ppm }))"
        @kept="put"
      />
      <p class="quiet small">{{ facts.limits[0]?.reference_source }}.</p>
    </section>
    <div class="side">
      <section class="panel" aria-label="Teaspoons">
        <h2>A level teaspoon</h2>
        <p class="quiet small">
          Common practice, within 10 %. Weigh ten of your own spoons and enter a tenth of that.
        </p>
        <FigureTable
          sort="spoon"
          unit="g"
          :rows="facts.spoons.map((one) => ({ ...one, value: one.grams }))"
          @kept="put"
        />
      </section>
      <section class="panel" aria-label="Mixes">
        <h2>Mixes made ahead</h2>
        <ul v-if="facts.mixes.length">
          <li v-for="one in facts.mixes" :key="one.id">
            <b>{{ one.recipe }}</b>, version {{ one.version }}: {{ one.left_grams }} g left of
            {{ Math.round(Number(one.made.kg) * 1000) }} g, made {{ dayText(one.made_at) }}.
            <span class="quiet">{{ one.note }}</span>
          </li>
        </ul>
        <p v-else class="quiet">None yet. A mix made ahead is used up by weight at the desk.</p>
        <form v-may:cook @submit.prevent="make">
          <SelectBox v-model="mix.recipe" label="Recipe">
            <option v-for="one in facts.recipes" :key="one.name" :value="one.name">{{ one.name }}</option>
          </SelectBox>
          <TypedInput
            v-model="mix.weight"
            label="How much was made"
            path="weight"
            :placeholder="like('3 lb', '1.5 kg')"
          />
          <TypedInput
            v-model="mix.note"
            label="Where it is stored"
            path="note"
            placeholder="tin on the spice shelf"
          />
          <p v-if="said" class="good" role="status">✓ {{ said }}</p>
          <SaveBar
            word="Save the mix"
            :state="mixing.state.value"
            :problem="mixing.problem.value"
            @retry="mixing.retry"
          />
        </form>
      </section>
    </div>
  </div>
</template>

<style scoped>
.figures {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}

section,
.side,
form,
ul {
  display: grid;
  gap: 10px;
}

@media (max-width: 979px) {
  .figures {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
