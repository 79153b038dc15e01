import { computed, ref, type Ref, watch } from 'vue'
import { useDraft } from '@/shared/writing/useDraft'
import type { Board, Cutting } from './useBoard'

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

/** What is being sliced and packed, kept on the device until it is recorded: the piece, its products and packs. */
export function useSlicing(code: string, board: Ref<Board | undefined>) {
  const { draft, clear } = useDraft<Cutting>(`slicing:${code}`, blank)
  /** The product the pack being filled is of, and the slices in the hand: they are in no pack yet. */
  const product = ref(0)
  const slices = ref(0)
  const pieces = computed(() => board.value?.pieces ?? [])
  const piece = computed(() => pieces.value.find((one) => one.mark === draft.piece))
  const isCut = computed(() => piece.value !== undefined && !piece.value.is_finished)

  /** The first piece to slice is on the board unless another is chosen; its slices are the first product. */
  function choose(mark: string): void {
    const now = pieces.value.find((one) => one.mark === mark)
    if (!now || !board.value) return
    const first = {
      mark: now.free_marks[0] ?? `${mark}1`,
      name: board.value.product,
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

  /** The packs of slices that were counted, and how many slices those are. */
  const firstPacks = computed(() => draft.packs.filter((one) => one.product === 0 && one.slices))
  const counted = computed(() => firstPacks.value.reduce((sum, one) => sum + Number(one.slices), 0))
  const packNumber = computed(() => {
    const first = Number(board.value?.next_mark.slice(1) ?? 1)
    return `P${first + draft.packs.length}`
  })
  function closePack(weight: string, store: string): void {
    const count = slices.value ? String(slices.value) : ''
    draft.packs.push({ product: product.value, weight, slices: count, store })
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
  return {
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
  }
}
