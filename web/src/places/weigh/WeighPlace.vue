<script setup lang="ts">
import { onKeyStroke, useWakeLock } from '@vueuse/core'
import { computed, onMounted, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useBatch } from '@/shared/api/useBatch'
import { useCures, usePieces } from '@/shared/api/useBench'
import OutboxSign from '@/shared/outbox/OutboxSign.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import CutParts from './CutParts.vue'
import PieceCards from './PieceCards.vue'
import ScaleFigure from './ScaleFigure.vue'
import SimulatedScale from './SimulatedScale.vue'
import { useMeaning } from './useMeaning'
import { useScale } from './useScale'
import { type Part, stepAtHand, useWeighing } from './useWeighing'
import WeightMeaning from './WeightMeaning.vue'
import WeightPad from './WeightPad.vue'

/** One piece after another on the scale: what it weighs, what that means, and one button that takes it. */
const props = defineProps<{ code: string; kind: string }>()
const router = useRouter()
const code = toRef(props, 'code')
const { data: batch, error, refetch } = useBatch(code)
const { data: pieces } = usePieces(code)
const { data: cures } = useCures(code)
const { unit } = useUnits()
/** The step stays what it was when the view was opened, however far the pieces get meanwhile. */
const begun = ref('')
watch(
  [batch, pieces],
  () => {
    if (!begun.value && batch.value && pieces.value) begun.value = stepAtHand(batch.value, pieces.value)
  },
  { immediate: true },
)
const kind = computed(() => props.kind || begun.value)
const scale = useScale()
const work = useWeighing({ code, kind, batch, pieces, cures })
const wake = useWakeLock()
onMounted(() => void wake.request('screen').catch(() => undefined))

const typed = ref('')
const isTyping = ref(false)
const off = ref<Part | null>(null)
const hasPad = computed(() => isTyping.value || !['live', 'over', 'waiting'].includes(scale.state.value))

const words: Record<string, string> = { weigh: 'On the scale', cure: 'Out of the cure' }
const title = computed(() => words[kind.value] ?? `After the ${kind.value}`)
const mark = computed(() => {
  if (!work.isCut.value) return work.current.value?.mark ?? ''
  return off.value ? off.value.name : work.nextMark.value
})
const shown = computed(() => named(mark.value))
const figure = computed(() => {
  if (hasPad.value && typed.value) return typed.value
  return scale.state.value === 'live' ? (scale.event.value?.net?.[unit.value] ?? '') : ''
})
const weight = computed(() => (figure.value ? `${figure.value} ${unit.value}` : ''))
const asked = computed(() => {
  if (work.isCut.value || !weight.value || !mark.value || Number(figure.value) <= 0) return null
  return { code: props.code, kind: kind.value, mark: mark.value, weight: weight.value }
})
const { meaning } = useMeaning(asked)
const canTake = computed(
  () => mark.value !== '' && (hasPad.value && typed.value ? Number(typed.value) > 0 : scale.isTakeable.value),
)
const button = computed(() => {
  if (canTake.value) return `Take ${weight.value} for ${shown.value}`
  if (hasPad.value) return `Type the weight of ${shown.value}`
  return scale.state.value === 'live' && scale.words.value === 'moving'
    ? 'It moves …'
    : `Lay ${shown.value} on it`
})
const step = computed(() =>
  hasPad.value && typed.value ? '' : `${scale.event.value?.step ?? ''} g`.replace(/^ g$/, ''),
)

const named = (piece: string): string => (piece === 'lot' ? 'the whole piece' : piece)

function take(): void {
  if (!canTake.value) return
  if (work.isCut.value) work.takePart(weight.value, off.value)
  else work.takeWeight(weight.value, step.value)
  off.value = null
  typed.value = ''
  isTyping.value = false
}
watch(
  () => work.current.value?.mark,
  () => (typed.value = ''),
)
function move(by: number): void {
  const rows = work.rows.value
  const at = rows.findIndex((row) => row.mark === work.current.value?.mark)
  const next = rows[(at + by + rows.length) % rows.length]
  if (next) work.chosen.value = next.mark
}
function leave(): void {
  void router.push({ name: 'log', params: { code: props.code } })
}

const inField = (event: KeyboardEvent): boolean => !!(event.target as HTMLElement).closest('input, textarea')
const onKey = (keys: string[], act: (event: KeyboardEvent) => void): void => {
  onKeyStroke(keys, (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || inField(event)) return
    event.preventDefault()
    act(event)
  })
}
onKey(['ArrowDown', 'ArrowRight'], () => move(1))
onKey(['ArrowUp', 'ArrowLeft'], () => move(-1))
onKey([...'0123456789.'], (event) => {
  isTyping.value = true
  if (typed.value.length < 7) typed.value += event.key
})
onKey(['Backspace'], () => (typed.value = typed.value.slice(0, -1)))
onKey(['u'], () => work.undo())
onKeyStroke('Enter', (event) => {
  if ((event.target as HTMLElement).closest('button, a, summary, input')) return
  event.preventDefault()
  take()
})
onKeyStroke('Escape', (event) => {
  event.preventDefault()
  if (isTyping.value) {
    isTyping.value = false
    typed.value = ''
  } else leave()
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
        <template v-if="work.isCut.value">
          <label class="cut">
            <span>of</span>
            <select
              v-model="work.draft.piece"
              aria-label="Which piece is cut"
              :disabled="work.draft.parts.length > 0"
            >
              <option v-if="!work.draft.piece" value="">
                {{ named(work.cutPiece.value?.mark ?? '') }}
              </option>
              <option v-for="row in work.rows.value" :key="row.mark" :value="row.mark">
                {{ named(row.mark) }}
              </option>
            </select>
          </label>
          <CutParts
            v-model:off="off"
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
            :before="`before the ${kind}`"
            @choose="(to) => (work.chosen.value = to)"
          />
          <RouterLink class="more" :to="{ name: 'weigh', params: { code }, query: { kind: 'trim' } }">
            + something cut off
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
        <div class="spring" />
        <WeightPad v-if="hasPad" v-model="typed" :unit="unit" />
        <div class="acts">
          <button type="button" class="take" :disabled="!canTake" @click="take">{{ button }}</button>
          <button
            type="button"
            class="other"
            :disabled="scale.state.value !== 'live'"
            @click="scale.command(scale.event.value?.tare ? 'clear' : 'tare')"
          >
            {{ scale.event.value?.tare ? 'No tare' : 'Tare' }}
          </button>
          <button type="button" class="other" :aria-pressed="isTyping" @click="isTyping = !isTyping">
            {{ isTyping ? 'By the scale' : 'Type it in' }}
          </button>
          <button
            v-if="work.isCut.value && work.draft.parts.some((part) => part.mark)"
            type="button"
            class="cutdone"
            @click="work.recordCut('')"
          >
            Record the {{ kind }}: {{ work.draft.parts.length }} weighed
          </button>
          <button v-if="work.canUndo.value" type="button" class="undo" @click="work.undo">
            Undo {{ work.undoWords.value }}
          </button>
        </div>
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

.cut {
  display: flex;
  gap: 10px;
  align-items: center;
  color: #a9b4b0;
}

.cut select {
  flex: 1;
  min-height: 44px;
  padding: 0 10px;
  border: 2px solid #3a4447;
  border-radius: 5px;
  background: #1d2528;
  color: #eef2ef;
  font: inherit;
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

.acts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px 180px;
  gap: 16px;
}

.acts button {
  min-height: 104px;
  border-radius: 7px;
  border: 2px solid #444f52;
  background: transparent;
  color: #eef2ef;
  font: inherit;
  font-size: 22px;
  font-weight: 640;
  cursor: pointer;
}

.acts .take {
  border-color: #e0607b;
  background: #e0607b;
  color: #1b0b10;
  font-size: clamp(24px, 3.1vw, 40px);
  font-weight: 760;
}

.acts button:disabled {
  cursor: default;
  color: #8d9895;
}

.acts .take:disabled {
  background: #2a3235;
  border-color: #3a4447;
  color: #b9c3bf;
}

.acts .undo,
.acts .cutdone {
  grid-column: 1 / -1;
  min-height: 52px;
  font-size: 18px;
}

.weigh :focus-visible {
  outline-color: #ffffff;
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

  .acts {
    grid-template-columns: 1fr 1fr;
    gap: 10px;
  }

  .acts button {
    min-height: 56px;
    font-size: 18px;
  }

  .acts .take {
    grid-column: 1 / -1;
    grid-row: 2;
    min-height: 96px;
    font-size: 26px;
  }
}
</style>
