<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref, toRef } from 'vue'
import { useScale } from '@/shared/scale/useScale'
import LabelsPanel from '@/shared/labels/LabelsPanel.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import FindingList from '@/shared/ui/FindingList.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import { useKeys } from '@/shared/frame/useKeys'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import { hasTyped } from '@/shared/writing/typed'
import FillPack from './FillPack.vue'
import FinishCut from './FinishCut.vue'
import FryTest from './FryTest.vue'
import HowThick from './HowThick.vue'
import PackCards from './PackCards.vue'
import SlabDrawing from './SlabDrawing.vue'
import { bodyOf, useBoard, useCutting, useThickness } from './useBoard'
import { useSlicing } from './useSlicing'

/** Slicing and packing, standing at the slicer: which piece, slices by touch, the pack being filled on the scale. */
const props = defineProps<{ code: string }>()
const code = toRef(props, 'code')
const { data: board, error, refetch } = useBoard(code)
const { weightText, money, costText, unitWord } = useUnits()
const scale = useScale()
const {
  draft,
  clear,
  product,
  slices,
  pieces,
  piece,
  isCut,
  choose,
  firstPacks,
  counted,
  packNumber,
  closePack,
  addProduct,
} = useSlicing(props.code, board)

const { preview, closing, close } = useCutting(code, () =>
  board.value && draft.piece && (draft.packs.length || isCut.value)
    ? bodyOf(draft, board.value, false)
    : null,
)
/** What was neither packed nor weighed: still whole, so that it stays a part of the piece, or lost. */
const rest = ref<'whole' | 'lost'>('whole')
const rests = [
  { value: 'whole' as const, word: 'Still whole' },
  { value: 'lost' as const, word: 'Lost' },
]
const goesOn = computed(() => isCut.value && !!preview.value?.left && rest.value === 'whole')
const thickness = useThickness(code, () =>
  draft.piece && piece.value
    ? {
        mark: draft.piece,
        millimetres: draft.millimetres,
        of_slices: firstPacks.value.map((one) => one.weight),
        count: counted.value ? String(counted.value) : '',
        in_pack: draft.inPack,
        in_portion: board.value?.portion_slices ?? '',
      }
    : null,
)
/** Slices to go, less those in the hand: they are in no pack yet. */
const toGo = computed(() => {
  const left = preview.value?.to_go
  return left == null ? null : Math.max(0, left - (product.value === 0 ? slices.value : 0))
})
function remove(at: number): void {
  draft.packs.splice(at, 1)
  scale.putBack()
}
function record(): void {
  if (!board.value) return
  close(bodyOf(draft, board.value, !goesOn.value), () => {
    clear()
    rest.value = 'whole'
    product.value = 0
  })
}
const word = computed(() => {
  const count = draft.packs.length
  const packed = `${count} ${count === 1 ? 'pack' : 'packs'}`
  if (!isCut.value) return `Record ${packed}`
  if (goesOn.value) return count ? `Record ${packed}, keep cutting` : 'Record the slicing so far'
  return count ? `Record the slicing and ${packed}` : 'Record the slicing'
})
const problems = computed(() => preview.value?.problems.filter((one) => one.code !== 'missing') ?? [])
const cents = (cost: string | null | undefined): string => (cost ? money(Number(cost).toFixed(2)) : '–')
useKeys({
  s: () => slices.value++,
  Escape: () => {
    if (!hasTyped()) history.back()
  },
})
</script>

<template>
  <LoadState v-if="!board" :error="error" what="the board" @retry="refetch()" />
  <template v-else>
    <div class="head">
      <h1>Slice and pack</h1>
      <span class="badge">{{ board.code }}</span>
      <span class="quiet">{{ board.name }}</span>
      <div class="acts">
        <LabelsPanel v-if="board.packs.length" :code="code" packs />
        <ActLink :to="{ name: 'log', params: { code } }">Log</ActLink>
      </div>
    </div>
    <FindingList :findings="board.cautions" label="Before you slice" />
    <div v-if="pieces.length > 1" class="choice" role="group" aria-label="Which piece">
      <ActButton
        v-for="one in pieces"
        :key="one.mark"
        :aria-pressed="one.mark === draft.piece"
        @click="choose(one.mark)"
      >
        {{ one.mark === 'lot' ? 'whole' : one.mark }}&nbsp;<span class="quiet"
          >{{ weightText(one.weight) }}{{ one.is_finished ? ', cut' : '' }}</span
        >
      </ActButton>
    </div>
    <TwoColumns>
      <section v-if="piece && isCut" class="panel" aria-label="On the slicer">
        <h2>On the slicer, {{ weightText(piece.weight) }}</h2>
        <SlabDrawing
          :cut="counted + (product === 0 ? slices : 0)"
          :to-go="toGo"
          :per-slice="preview?.slice_weight ? `one slice ${weightText(preview.slice_weight)}` : ''"
          left="end"
          right="end"
        />
      </section>
      <FillPack
        v-if="piece"
        v-model:slices="slices"
        v-model:product="product"
        v-model:in-pack="draft.inPack"
        :products="draft.products"
        :names="board.products"
        :stores="board.stores"
        :is-cut="isCut"
        :pack="packNumber"
        :code="code"
        :portion-slices="board.portion_slices"
        :scale="scale"
        @close="closePack"
        @another="addProduct"
      />
      <PackCards
        :draft="draft"
        :costs="preview?.packs ?? []"
        :before="board.packs"
        :first="packNumber"
        :number="Number(board.next_mark.slice(1))"
        @remove="remove"
      />
      <template #side>
        <section class="panel" aria-label="What it costs">
          <p class="quiet">A {{ isCut ? 'sliced' : 'finished' }} {{ unitWord }}</p>
          <p class="heavy">{{ preview?.unit_cost ? costText(preview.unit_cost) : '–' }}</p>
          <dl>
            <dt>A slice</dt>
            <dd>{{ cents(preview?.slice_cost) }}</dd>
            <dt>A portion</dt>
            <dd>{{ money(preview?.portion) }}</dd>
            <template v-if="preview?.packs[0]?.cost">
              <dt>The first pack</dt>
              <dd>{{ money(preview.packs[0].cost) }}</dd>
            </template>
          </dl>
          <p v-if="isCut" class="quiet small">as if all that is left is sliced too</p>
        </section>
        <HowThick v-if="isCut" v-model="draft.millimetres" :thickness="thickness" :in-pack="draft.inPack" />
        <FryTest :code="code" :seen="board.seen" />
        <form v-may:cook class="panel finish" @submit.prevent="record">
          <FinishCut v-if="isCut" :draft="draft" />
          <template v-if="isCut && preview?.left">
            <ChoiceBar v-model="rest" :label="`The rest, ${weightText(preview.left)}, is`" :choices="rests" />
            <p class="quiet small">What was cut off is weighed above.</p>
          </template>
          <ul v-if="problems.length" class="dear small">
            <li v-for="one in problems" :key="one.path + one.code">▲ {{ one.message }}</li>
          </ul>
          <SaveBar
            :word="word"
            :state="closing.state.value"
            :problem="closing.problem.value"
            @retry="closing.retry()"
          />
        </form>
      </template>
    </TwoColumns>
  </template>
</template>

<style scoped>
.choice {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 10px 0;
}

[aria-pressed='true'] {
  outline: 3px solid var(--rose);
  outline-offset: -2px;
}

.heavy {
  font-size: 44px;
  font-weight: 780;
  font-stretch: 112%;
  line-height: 1.1;
  color: var(--rose-deep);
}

dl {
  display: grid;
  grid-template-columns: 1fr auto;
}

dd {
  font-weight: 680;
  text-align: right;
}

.finish {
  display: grid;
  gap: 12px;
}
</style>
