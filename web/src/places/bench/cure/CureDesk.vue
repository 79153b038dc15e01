<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { momentTyped } from '@/shared/quantity/when'
import { computed, ref, toRef } from 'vue'
import { useBatch } from '@/shared/api/useBatch'
import { useCures, usePieces } from '@/shared/api/useBench'
import LabelsPanel from '@/shared/labels/LabelsPanel.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import CurePieces from './CurePieces.vue'
import CureRecord from './CureRecord.vue'
import CuringTime from './CuringTime.vue'
import NitriteGauge from './NitriteGauge.vue'
import PieceFields from './PieceFields.vue'
import RecipeBar from './RecipeBar.vue'
import { useDesk, useDeskFacts } from './useDesk'
import { usePutIn } from './usePutIn'
import WeighOut from './WeighOut.vue'

/** The cure desk: pieces on the left, what to weigh out in the middle, too much and how long on the right. */
const props = defineProps<{ code: string }>()
const code = toRef(props, 'code')
const { data: batch, error, refetch } = useBatch(code)
const { data: pieces } = usePieces(code)
const { data: cures } = useCures(code)
const { data: facts, put: putFacts } = useDeskFacts()
const { lengthText, like, money } = useUnits()
/** What is in a cure, by its mark. */
const inside = computed(() =>
  (cures.value?.cures ?? [])
    .filter((one) => one.is_under_way)
    .sort((one, other) => one.mark.localeCompare(other.mark, 'en', { numeric: true })),
)
const busy = computed(() => new Set(inside.value.map((one) => one.mark)))
const desk = useDesk(code, pieces, busy, facts)
const { draft, current, going, answer, shown } = desk
const { state, problem, retry, sure, isAsked, putIn } = usePutIn(code)
const said = ref('')
/** The cure that is looked at: one touched, or the first where nothing lies on the desk. */
const touched = ref<number | null>(null)
const record = computed(() => {
  const found = inside.value.find((one) => one.id === touched.value)
  return found ?? (draft.laid.length ? null : (inside.value[0] ?? null))
})
function choose(mark: string): void {
  draft.chosen = mark
  touched.value = null
}

const preview = computed(() =>
  answer.value ? { readings: [], asks: [], problems: answer.value.problems, shops: [] } : null,
)
provideFormFacts({ preview, problem })
const path = computed(() => `pieces[${desk.place.value}].`)
const inAt = computed(() => (draft.in_at ? momentTyped(draft.in_at) : new Date().toISOString()))
const words = computed(() => {
  const count = going.value.length
  return count === 1 ? '1 piece' : `${count} pieces`
})
const totals = computed(() =>
  (answer.value?.totals ?? []).map((one) => `${one.grams} g ${one.name}`).join(', '),
)

function send(): void {
  const marks = going.value.map((one) => one.mark).join(' · ')
  said.value = ''
  const body = {
    pieces: going.value,
    scale: draft.scale,
    in_at: draft.in_at ? momentTyped(draft.in_at) : null,
    wishes: draft.wishes,
  }
  putIn(body, () => {
    desk.clear()
    said.value = `In the cure: ${marks}. The days to come are planned; see Today.`
  })
}
</script>

<template>
  <LoadState v-if="!batch || !pieces || !facts" :error="error" :what="`batch ${code}`" @retry="refetch()" />
  <template v-else>
    <div class="head">
      <h1>{{ draft.laid.length ? `Cure for ${words}` : 'Cure desk' }}</h1>
      <RouterLink class="badge" :to="{ name: 'log', params: { code } }">{{ code }}</RouterLink>
      <span class="quiet">{{ batch.name }}, green weight</span>
      <div class="acts">
        <LabelsPanel :code="code" />
        <ActButton
          v-if="draft.laid.length"
          first
          :disabled="!going.length || state === 'saving'"
          @click="send"
        >
          {{ isAsked ? 'Into the cure anyway' : 'Into the cure' }}
        </ActButton>
      </div>
    </div>
    <p v-if="said" class="said" role="status"><span aria-hidden="true">✓</span> {{ said }}</p>
    <ProblemNote
      v-if="problem"
      :problem="problem"
      :retry-word="state === 'failed' ? 'Try again' : ''"
      @retry="retry"
    />
    <div v-if="isAsked" class="panel asked">
      <p v-for="one in problem?.fields" :key="one.path">
        <span aria-hidden="true">▲</span> {{ one.message }}
      </p>
      <TickBox v-model="sure">Yes, that is right</TickBox>
    </div>
    <div class="desk">
      <div>
        <CurePieces
          :laid="draft.laid"
          :left="draft.left"
          :chosen="record ? '' : draft.chosen"
          :pieces="pieces"
          :answer="answer"
          :inside="inside"
          :looked="record?.id ?? 0"
          @choose="choose"
          @look="(id) => (touched = id)"
          @toggle="desk.toggle"
        />
        <p v-if="totals" class="quiet small totals">
          For all: {{ totals }}.
          <template v-if="answer && Number(answer.cost)">Together {{ money(answer.cost) }}.</template>
          <template v-if="answer?.unpriced.length"
            >No price is listed yet for {{ answer.unpriced.join(', ') }}.</template
          >
        </p>
        <p v-if="!draft.laid.length" class="quiet small totals">
          Every piece is in the cure. Weigh them when they come out.
        </p>
      </div>
      <CureRecord v-if="record" :key="record.id" :code="code" :cure="record" />
      <template v-else-if="current && shown">
        <section class="panel" aria-label="Weigh out">
          <RecipeBar
            v-model:recipe="current.recipe"
            :facts="facts"
            :piece="desk.curedOf(current)"
            :path="`${path}recipe.`"
            :can-share="draft.laid.length > 1"
            @same="desk.sameForAll"
            @kept="putFacts"
          />
          <ul v-if="shown.questions.length" class="questions">
            <li v-for="one in shown.questions" :key="one.path">
              <span aria-hidden="true">▲</span> {{ one.message }}
            </li>
          </ul>
          <WeighOut :piece="shown" />
        </section>
        <div class="right">
          <section v-if="shown.gauge" class="panel" aria-label="Is it too much">
            <NitriteGauge :gauge="shown.gauge" />
          </section>
          <section class="panel" aria-label="How long">
            <h2>How long</h2>
            <CuringTime
              v-if="shown.time"
              :out="current.out_day ?? null"
              :time="shown.time"
              :in-at="inAt"
              @update:out="(day) => (current!.out_day = day)"
            />
            <TypedInput
              v-model="current.thickness"
              label="Thickness of the thickest part"
              :path="`${path}thickness`"
              :placeholder="shown.thickness ? lengthText(shown.thickness) : like('1.6 in', '4 cm')"
            />
          </section>
          <section class="panel" aria-label="The piece and the scale">
            <PieceFields
              v-model:piece="current"
              v-model:scale="draft.scale"
              v-model:in-at="draft.in_at"
              v-model:wishes="draft.wishes"
              :facts="facts"
              :skin="shown.skin"
              :course="pieces.pieces.find((one) => one.mark === current?.mark)?.course_label ?? ''"
              :product="pieces.pieces.find((one) => one.mark === current?.mark)?.product"
              :path="path"
            />
          </section>
        </div>
      </template>
    </div>
  </template>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: 262px minmax(0, 1.05fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}

.desk :deep(.right),
.desk :deep(section) {
  display: grid;
  gap: 12px;
}

.said {
  color: var(--good);
  font-weight: 640;
  margin-bottom: 10px;
}

.asked {
  display: grid;
  gap: 8px;
  margin: 10px 0;
}

.questions {
  display: grid;
  gap: 6px;
}

.questions li,
.asked p {
  border-left: 6px solid var(--care);
  background: var(--care-ground);
  padding: 8px 12px;
  font-weight: 600;
}

.totals {
  padding: 10px 2px;
}

@media (max-width: 1099px) {
  .desk {
    grid-template-columns: 240px minmax(0, 1fr);
  }

  .desk :deep(.right) {
    grid-column: 2;
  }
}

@media (max-width: 719px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }

  .desk :deep(.right) {
    grid-column: 1;
  }
}
</style>
