<script setup lang="ts">
import { useWakeLock } from '@vueuse/core'
import { computed, onMounted, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useBatch } from '@/shared/api/useBatch'
import { useCures, usePieceFires, usePieces } from '@/shared/api/useBench'
import OutboxSign from '@/shared/outbox/OutboxSign.vue'
import { capital } from '@/shared/quantity/capital'
import { useUnits } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import { afterWord, recordWord, stepWord } from '@/shared/parts/stepWords'
import CutParts from './CutParts.vue'
import OutOfFire from './OutOfFire.vue'
import PieceCards from './PieceCards.vue'
import ScaleFigure from './ScaleFigure.vue'
import SimulatedScale from '@/shared/scale/SimulatedScale.vue'
import StepChoice from './StepChoice.vue'
import { useOnScale } from './useOnScale'
import { useScale } from '@/shared/scale/useScale'
import { stepAtHand, useWeighing } from './useWeighing'
import { useWeighKeys } from './useWeighKeys'
import WeighActs from './WeighActs.vue'
import WeightMeaning from './WeightMeaning.vue'
import WeightPad from './WeightPad.vue'

/** One piece after another on the scale: what it weighs, what that means, and one button that takes it. */
const props = defineProps<{ code: string; kind: string; piece: string }>()
const router = useRouter()
const code = toRef(props, 'code')
const { data: batch, error, refetch } = useBatch(code)
const { data: pieces } = usePieces(code)
const { data: cures } = useCures(code)
const { data: fires } = usePieceFires(code)
const { unit } = useUnits()
/** The step stays what it was when the view was opened, however far the pieces get meanwhile. */
const begun = ref('')
watch(
  [batch, pieces, cures],
  () => {
    if (!begun.value && batch.value && pieces.value && cures.value)
      begun.value = stepAtHand(batch.value, pieces.value, cures.value)
  },
  { immediate: true },
)
const kind = computed(() => props.kind || begun.value)
const scale = useScale()
const work = useWeighing({ code, kind, batch, pieces, cures, fires, first: props.piece })
const wake = useWakeLock()
onMounted(() => void wake.request('screen').catch(() => undefined))

const {
  typed,
  isTyping,
  off,
  hasPad,
  mark,
  shown,
  figure,
  meaning,
  canTake,
  button,
  step,
  take,
  type,
  stopTyping,
} = useOnScale({ code, kind, scale, work })

const fire = computed(() => work.fireOf(work.current.value?.mark ?? ''))
const words: Record<string, string> = { weigh: 'On the scale', cure: 'Out of the cure' }
const title = computed(() => words[kind.value] ?? capital(afterWord(kind.value)))
/** The step weighed for can be another one than expected. */
function choose(to: string): void {
  void router.replace({ name: 'weigh', params: { code: props.code }, query: { kind: to } })
}
const doneWord = computed(() => {
  const parts = work.draft.parts
  const isReady = work.isCut.value && parts.some((part) => part.mark)
  return isReady ? `${recordWord(kind.value)}: ${parts.length} weighed` : ''
})

function move(by: number): void {
  const rows = work.rows.value
  const at = rows.findIndex((row) => row.mark === work.current.value?.mark)
  const next = rows[(at + by + rows.length) % rows.length]
  if (next) work.chosen.value = next.mark
}
function leave(): void {
  void router.push({ name: 'log', params: { code: props.code } })
}

useWeighKeys({
  move,
  figure: type,
  erase: () => (typed.value = typed.value.slice(0, -1)),
  undo: work.undo,
  swap: work.swap,
  take,
  back: () => (isTyping.value ? stopTyping() : leave()),
})
</script>

<template>
  <div class="weigh">
    <LoadState v-if="!batch || !pieces" :error="error" :what="`batch ${code}`" @retry="refetch()" />
    <template v-else>
      <aside>
        <p class="batch">
          {{ batch.name }} <b>{{ batch.code }}</b>
        </p>
        <h1>{{ title }}</h1>
        <StepChoice :kind="kind" @choose="choose" />
        <template v-if="work.isCut.value">
          <CutParts
            v-model:off="off"
            v-model:piece="work.draft.piece"
            :marks="work.rows.value.map((row) => row.mark)"
            :current="work.cutPiece.value?.mark ?? ''"
            :parts="work.draft.parts"
            :next-mark="work.nextMark.value"
            :kind="kind"
            @remove="(place) => work.draft.parts.splice(place, 1)"
          />
        </template>
        <template v-else>
          <PieceCards
            :rows="work.rows.value"
            :current="work.current.value?.mark ?? ''"
            :before="`before ${stepWord(kind)}`"
            @choose="(to) => (work.chosen.value = to)"
          />
          <RouterLink class="more" :to="{ name: 'weigh', params: { code }, query: { kind: 'trim' } }">
            + add something cut off
          </RouterLink>
        </template>
      </aside>
      <section aria-label="On the scale">
        <ScaleFigure
          :scale="scale"
          :shown="shown"
          :figure="figure"
          :is-typed="hasPad && typed !== ''"
          :meaning="meaning"
        />
        <WeightMeaning v-if="meaning && !work.isCut.value" :meaning="meaning" :kind="kind" />
        <OutOfFire v-if="fire && !work.isCut.value" :fire="fire" />
        <div class="spring" />
        <WeightPad v-if="hasPad" v-model="typed" :unit="unit" />
        <WeighActs
          :word="button"
          :can-take="canTake"
          :can-tare="scale.state.value === 'live'"
          :has-tare="!!scale.event.value?.tare"
          :is-typing="isTyping"
          :done-word="doneWord"
          :undo-word="work.canUndo.value ? `Undo ${work.undoWords.value}` : ''"
          :swap-word="work.swapWords.value"
          @take="take"
          @tare="scale.command(scale.event.value?.tare ? 'clear' : 'tare')"
          @type="isTyping = !isTyping"
          @done="work.recordCut(step)"
          @undo="work.undo"
          @swap="work.swap"
        />
        <OutboxSign />
      </section>
      <div class="below">
        <SimulatedScale
          v-if="scale.event.value?.simulated"
          :code="code"
          :mark="work.isCut.value ? '' : mark"
          :kind="kind"
          :lay="scale.lay"
        />
        <button type="button" class="leave" @click="leave">Back to the bench</button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.weigh {
  display: grid;
  grid-template: 'aside scale' 1fr 'below scale' auto / 336px minmax(0, 1fr);
  min-height: 100dvh;
  background: #171c1e;
  color: #eef2ef;
}

.weigh > :only-child {
  grid-column: 1 / -1;
  margin: 40px auto;
  color: var(--ink);
}

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

.more {
  display: grid;
  place-items: center;
  min-height: 52px;
  border: 2px dashed #3a4447;
  border-radius: 5px;
  color: #b9c3bf;
  text-decoration: none;
}

.below {
  grid-area: below;
  display: grid;
  gap: 10px;
  padding: 0 22px 20px;
}

.leave {
  justify-self: start;
  min-height: 44px;
  padding: 0 14px 0 0;
  background: none;
  border: 0;
  color: #a9b4b0;
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
}

section {
  grid-area: scale;
  display: flex;
  flex-direction: column;
  gap: 18px;
  min-width: 0;
  padding: 30px 44px 34px;
  border-left: 1px solid #2f383b;
}

.spring {
  flex: 1;
}

.weigh :focus-visible {
  outline-color: #ffffff;
}

@media (max-width: 979px) {
  .weigh {
    grid-template-columns: 264px minmax(0, 1fr);
  }

  section {
    padding: 24px 20px;
  }
}

@media (max-width: 719px) {
  .weigh {
    grid-template: 'aside' auto 'scale' 1fr 'below' auto / minmax(0, 1fr);
  }

  .below {
    padding: 0 16px 14px;
  }

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

  aside .more {
    min-height: 44px;
  }

  section {
    padding: 14px 16px 18px;
    gap: 12px;
    border: 0;
    min-height: calc(100dvh - 300px);
  }
}
</style>
