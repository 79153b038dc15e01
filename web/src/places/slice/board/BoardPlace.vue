<script setup lang="ts">
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref, toRef, watch } from 'vue'
import { useScale } from '@/shared/scale/useScale'
import LabelsPanel from '@/shared/labels/LabelsPanel.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import FindingList from '@/shared/ui/FindingList.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import { useKeys } from '@/shared/ui/useKeys'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import { useDraft } from '@/shared/writing/useDraft'
import { hasTyped } from '@/shared/writing/typed'
import FillPack from './FillPack.vue'
import FinishCut from './FinishCut.vue'
import FryTest from './FryTest.vue'
import HowThick from './HowThick.vue'
import PackCards from './PackCards.vue'
import SlabDrawing from './SlabDrawing.vue'
import { bodyOf, type Cutting, useBoard, useCutting, useThickness } from './useBoard'

/** Slicing and packing, standing at the slicer: which piece, slices by touch, the pack being filled on the scale. */
const props = defineProps<{ code: string }>()
const code = toRef(props, 'code')
const { data: board, error, refetch } = useBoard(code)
const { weightText, money, costText, unitWord } = useUnits()
const scale = useScale()
const blank = (): Cutting => ({
  piece: '',
  products: [],
  packs: [],
  cutOff: [],
  minutes: '',
  bagPrice: '',
  millimetres: '',
  inPack: '10',
})
const { draft, clear } = useDraft<Cutting>(`slicing:${props.code}`, blank)
const product = ref(0)
const slices = ref(0)
const pieces = computed(() => board.value?.pieces ?? [])
const piece = computed(() => pieces.value.find((one) => one.mark === draft.piece))
const isCut = computed(() => piece.value !== undefined && !piece.value.is_finished)

/** The first piece to slice is on the board unless another is chosen; its slices are the first product. */
function choose(mark: string): void {
  const now = pieces.value.find((one) => one.mark === mark)
  if (!now || !board.value) return
  const name = board.value.product
  const first = {
    mark: now.free_marks[0] ?? `${mark}1`,
    name,
    form: 'slices' as const,
    weight: '',
    slices: '',
  }
  Object.assign(draft, { piece: mark, products: [first], packs: [], cutOff: [] })
  product.value = 0
  slices.value = 0
}
watch(
  pieces,
  (now) => {
    if (!now.length || now.some((one) => one.mark === draft.piece)) return
    const next = now.find((one) => !one.is_finished) ?? unpackedFirst()
    if (next) choose(next.mark)
  },
  { immediate: true },
)
function unpackedFirst() {
  const open = board.value?.unpacked.find((one) => Number(one.weight.kg) > 0)
  return pieces.value.find((one) => one.mark === open?.mark) ?? pieces.value[0]
}

const isDone = ref(false)
const { preview, closing, close } = useCutting(code, () =>
  board.value && draft.piece && (draft.packs.length || isCut.value)
    ? bodyOf(draft, board.value, isDone.value)
    : null,
)
const firstPacks = computed(() => draft.packs.filter((one) => one.product === 0 && one.slices))
const counted = computed(() => firstPacks.value.reduce((sum, one) => sum + Number(one.slices), 0))
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
const packNumber = computed(() => {
  const first = Number(board.value?.next_mark.slice(1) ?? 1)
  return `P${first + draft.packs.length}`
})
function closePack(weight: string, store: string): void {
  draft.packs.push({
    product: product.value,
    weight,
    slices: slices.value ? String(slices.value) : '',
    store,
  })
  slices.value = 0
}
function addProduct(): void {
  const used = draft.products.map((one) => one.mark)
  const mark =
    piece.value?.free_marks.find((one) => !used.includes(one)) ?? `${draft.piece}${used.length + 1}`
  const name = `${draft.products[0]?.name ?? ''}, dice`
  draft.products.push({ mark, name, form: 'dice', weight: '', slices: '' })
  product.value = draft.products.length - 1
}
function record(): void {
  if (!board.value) return
  close(bodyOf(draft, board.value, true), () => {
    clear()
    isDone.value = false
    product.value = 0
  })
}
const word = computed(() => {
  const count = draft.packs.length
  const packed = `${count} ${count === 1 ? 'pack' : 'packs'}`
  if (!isCut.value) return `Record ${packed}`
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
        <RouterLink class="act" :to="{ name: 'slice' }">Larder</RouterLink>
        <LabelsPanel v-if="board.packs.length" :code="code" packs />
        <RouterLink class="act" :to="{ name: 'log', params: { code } }">Log</RouterLink>
      </div>
    </div>
    <FindingList :findings="board.cautions" label="Before you slice" />
    <div v-if="pieces.length > 1" class="choice" role="group" aria-label="Which piece">
      <button
        v-for="one in pieces"
        :key="one.mark"
        type="button"
        class="act"
        :aria-pressed="one.mark === draft.piece"
        @click="choose(one.mark)"
      >
        {{ one.mark === 'lot' ? 'whole' : one.mark }}&nbsp;<span class="quiet"
          >{{ weightText(one.weight) }}{{ one.is_finished ? ', cut' : '' }}</span
        >
      </button>
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
        @remove="(at) => draft.packs.splice(at, 1)"
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
