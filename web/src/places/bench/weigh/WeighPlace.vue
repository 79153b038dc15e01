<script setup lang="ts">
import { useWakeLock } from '@vueuse/core'
import { computed, onMounted, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useBatch } from '@/shared/api/useBatch'
import { useCures, usePieceFires, usePieces } from '@/shared/api/useBench'
import OutboxSign from '@/shared/outbox/OutboxSign.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import { recordWord } from '@/shared/parts/stepWords'
import OutOfFire from './OutOfFire.vue'
import ScaleFigure from './ScaleFigure.vue'
import SimulatedScale from '@/shared/scale/SimulatedScale.vue'
import { useOnScale } from './useOnScale'
import { useScale } from '@/shared/scale/useScale'
import { stepAtHand, useWeighing } from './useWeighing'
import { useWeighKeys } from './useWeighKeys'
import WeighActs from './WeighActs.vue'
import WeighSide from './WeighSide.vue'
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
  isTyped,
  off,
  hasPad,
  mark,
  figure,
  said,
  taken,
  canTake,
  button,
  step,
  take,
  type,
  stopTyping,
} = useOnScale({ code, kind, seen: computed(() => batch.value?.seen ?? 0), scale, work })

const doneWord = computed(() => {
  const parts = work.draft.parts
  const isReady = work.isCut.value && parts.some((part) => part.mark)
  return isReady ? `${recordWord(kind.value)}: ${parts.length} weighed` : ''
})

/** Another piece: what lies on the scale may be taken for it, taken already or not. */
function choose(mark: string): void {
  work.chosen.value = mark
  scale.putBack()
}
function move(by: number): void {
  const rows = work.rows.value
  const at = rows.findIndex((row) => row.mark === work.current.value?.mark)
  const next = rows[(at + by + rows.length) % rows.length]
  if (next) choose(next.mark)
}
function undo(): void {
  work.undo()
  scale.putBack()
}
function leave(): void {
  void router.push({ name: 'log', params: { code: props.code } })
}

useWeighKeys({
  move,
  figure: type,
  erase: () => (typed.value = typed.value.slice(0, -1)),
  undo,
  swap: work.swap,
  take,
  back: () => (isTyping.value ? stopTyping() : leave()),
})
</script>

<template>
  <div class="weigh">
    <LoadState v-if="!batch || !pieces" :error="error" :what="`batch ${code}`" @retry="refetch()" />
    <template v-else>
      <WeighSide
        v-model:off="off"
        :draft="work.draft"
        :batch="batch"
        :kind="kind"
        :work="work"
        :unpriced="cures?.unpriced"
        @choose="choose"
        @remove="scale.putBack()"
      />
      <section aria-label="On the scale">
        <ScaleFigure
          :scale="scale"
          :shown="said.shown"
          :figure="figure"
          :is-typed="isTyped"
          :is-taken="taken !== null"
          :meaning="said.meaning"
        />
        <WeightMeaning v-if="said.meaning" :meaning="said.meaning" :kind="kind" />
        <OutOfFire v-if="said.fire" :fire="said.fire" />
        <OutboxSign />
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
          @undo="undo"
          @swap="work.swap"
        />
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
/* lists on the dark ground */
.weigh :deep(.n-base-selection),
.weigh :deep(.n-input) {
  --n-color: #1d2528 !important;
  --n-color-active: #1d2528 !important;
  --n-color-focus: #1d2528 !important;
  --n-text-color: #eef2ef !important;
  --n-caret-color: #eef2ef !important;
  --n-border: 1px solid #56615f !important;
  --n-arrow-color: #b9c3bf !important;
}

.weigh :deep(.native) {
  background: #1d2528;
  color: #eef2ef;
  border-color: #56615f;
}

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

  section {
    padding: 14px 16px 18px;
    gap: 12px;
    border: 0;
    min-height: calc(100dvh - 300px);
  }
}
</style>
