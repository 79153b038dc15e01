<script setup lang="ts">
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useUnits } from '@/shared/quantity/useUnits'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { reactive, ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { dayText, todayHere } from '@/shared/quantity/when'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'

/** Fryings of a shop pack: weight before and after, as often as one likes. */
const props = defineProps<{ whole: Schemas['ItemWholeOut'] }>()
type Body = Schemas['FryTestIn']
const queries = useQueryClient()
const blank = (): Body => ({ raw: '', cooked: '', on: todayHere() })
const draft = reactive<Body>(blank())
const { state, problem, write, retry } = useKitchenWrite(
  `frying:${props.whole.item.id}`,
  '/prices/{item_id}/fryings',
  { path: () => ({ item_id: props.whole.item.id }), typed: () => draft },
)
provideFormFacts({ preview: ref(null), problem })

function send(): void {
  void write({ ...draft }, () => {
    Object.assign(draft, blank())
    void queries.invalidateQueries({ queryKey: ['prices'] })
    void queries.invalidateQueries({ queryKey: ['case'] })
  })
}
const { percent } = useUnits()
</script>

<template>
  <section class="panel fry" aria-label="Frying tests">
    <h2>Frying tests</h2>
    <p v-if="whole.item.fry?.mean">
      <b>{{ percent(whole.item.fry.mean) }}</b> is left<template v-if="whole.item.fry.spread">
        ± {{ whole.item.fry.spread }}</template
      >,
      <span class="quiet"
        >{{ whole.item.fry.tests }} {{ whole.item.fry.tests === 1 ? 'test' : 'tests' }}</span
      >
    </p>
    <p v-else class="quiet">No test yet: fry some, and weigh it before and after.</p>
    <ul>
      <li v-for="(test, at) in whole.fryings" :key="at" class="small">
        {{ dayText(test.on) }}: {{ test.raw }} to {{ test.cooked }}, {{ percent(test.kept) }}
        <span class="quiet">{{ test.by }}</span>
      </li>
    </ul>
    <form v-may:cook novalidate @submit.prevent="send">
      <div class="pair">
        <TypedInput v-model="draft.raw" label="Raw" path="raw" placeholder="112 g" />
        <TypedInput v-model="draft.cooked" label="Cooked" path="cooked" placeholder="38 g" />
      </div>
      <SaveBar word="Save this test" :state="state" :problem="problem" @retry="retry" />
    </form>
  </section>
</template>

<style scoped>
.fry,
form {
  display: grid;
  gap: 8px;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}

b {
  font-size: 20px;
}
</style>
