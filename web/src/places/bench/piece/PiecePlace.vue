<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref, toRef } from 'vue'
import { useCures, usePieces, usePlan } from '@/shared/api/useBench'
import LabelsPanel from '@/shared/labels/LabelsPanel.vue'
import { useForecastOfPiece } from '@/shared/outlook/useForecast'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import CourseLine from '@/shared/ui/CourseLine.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import TaskRow from '@/shared/parts/TaskRow.vue'
import FactsForm from './FactsForm.vue'
import { productWords } from '@/places/bench/productWords'
import { useSizes } from './useSizes'

/** One piece, as the code on its label opens it: what it is, where it lies, what is to be done with it. */
const props = defineProps<{ code: string; mark: string }>()
const code = toRef(props, 'code')
const { data: pieces, error, refetch } = usePieces(code)
const { data: cures } = useCures(code)
const { data: plan } = usePlan(400, code)
const { costText, otherText, unitWord, weightText } = useUnits()
const { sizeText } = useSizes()
const piece = computed(() => pieces.value?.pieces.find((one) => one.mark === props.mark))
const cure = computed(() =>
  cures.value?.cures.find((one) => one.mark === props.mark && one.taken_back === null),
)
const tasks = computed(() =>
  (plan.value?.tasks ?? [])
    .filter((task) => task.state === 'open' && task.marks.includes(props.mark))
    .slice(0, 6),
)
const ahead = useForecastOfPiece(code, toRef(props, 'mark'))
const isMeasuring = ref(false)
</script>

<template>
  <LoadState v-if="!pieces" :error="error" :what="`piece ${mark} of ${code}`" @retry="refetch()" />
  <template v-else>
    <div class="head">
      <h1 class="mark">{{ mark }}</h1>
      <RouterLink class="badge" :to="{ name: 'log', params: { code } }">{{ code }}</RouterLink>
      <span class="quiet">{{ pieces.name }}, {{ pieces.cut }}</span>
      <CourseLine :code="code" :mark="mark" />
      <div class="acts">
        <LabelsPanel :code="code" :marks="[mark]" />
        <ActLink v-if="piece" v-may:helper first :to="{ name: 'weigh', params: { code } }">Weigh</ActLink>
      </div>
    </div>
    <p v-if="!piece" class="panel">
      There is no piece “{{ mark }}” any more: it was cut, combined or thrown away. The
      <RouterLink :to="{ name: 'diary', params: { code } }">diary of {{ code }}</RouterLink> tells what became
      of it.
    </p>
    <div v-else class="one">
      <section class="panel" aria-label="The piece">
        <p class="weight">
          {{ weightText(piece.weight) }}
          <span class="quiet">{{ otherText(piece.weight) }}, {{ piece.label.toLowerCase() }}</span>
        </p>
        <dl>
          <dt>Size</dt>
          <dd>{{ sizeText(piece) }}</dd>
          <dt>Skin</dt>
          <dd>{{ piece.skin || 'not given' }}</dd>
          <dt>Cured as</dt>
          <dd>
            {{ productWords[piece.product]
            }}<span v-if="!piece.is_product_set" class="quiet">, by its cut</span>
          </dd>
          <dt>Stored in</dt>
          <dd>
            {{ piece.place?.text ?? 'no place yet' }}
            <RouterLink :to="{ name: 'map' }">on the map</RouterLink>
          </dd>
          <template v-if="ahead">
            <dt>To come</dt>
            <dd>
              {{ costText(ahead.low) }} to {{ costText(ahead.high) }} a finished {{ unitWord }}, 8 times out
              of 10
            </dd>
          </template>
          <template v-if="cure">
            <dt>Cure</dt>
            <dd>{{ cure.recipe.split(',')[0] || cure.answer.school }}, in {{ dayText(cure.in_at) }}</dd>
            <dt>Out</dt>
            <dd>between {{ dayText(cure.first_at) }} and {{ dayText(cure.last_at) }}</dd>
          </template>
        </dl>
        <ActButton v-may:cook :aria-expanded="isMeasuring" @click="isMeasuring = !isMeasuring">
          Measure it, or move it
        </ActButton>
        <FactsForm v-if="isMeasuring" :code="code" :mark="mark" @kept="isMeasuring = false" />
        <ActLink :to="{ name: 'diary', params: { code } }">Diary, notes and photos</ActLink>
      </section>
      <section aria-label="To do">
        <h2>To do</h2>
        <p v-if="!tasks.length" class="quiet">Nothing is planned.</p>
        <ul>
          <TaskRow v-for="task in tasks" :key="task.uid" :task="task" plain />
        </ul>
      </section>
    </div>
  </template>
</template>

<style scoped>
.mark {
  font-size: 54px;
  font-weight: 800;
}

.one {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}

section,
ul {
  display: grid;
  gap: 10px;
}

.weight {
  font-size: 26px;
  font-weight: 760;
}

.weight span {
  font-size: 16px;
  font-weight: 400;
}

dl {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 6px 16px;
}

dt {
  color: var(--quiet);
}

@media (max-width: 719px) {
  .one {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
