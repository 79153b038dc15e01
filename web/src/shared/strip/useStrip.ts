import { computed, type Ref } from 'vue'
import type { Batch, Column, Forecast } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import type { Range, Step } from './geometry'

/** What is drawn of a batch; `sources` where lots of it are pieces of other batches. */
export type Drawn = Pick<Batch, 'strip' | 'shops'> &
  Partial<Pick<Batch, 'sources'>> & {
    /** What is forecast of the steps to come; without it they stand empty. */
    forecast?: Forecast | null
  }
/** A column to come: its word, and what is expected of it where that is known. */
export type Coming = { kind: string; label: string; expected: Forecast['steps'][number] | null }

/** A batch's columns as steps to draw, in the kitchen's unit. Numbers here are for drawing only. */
export function useStrip(batch: Ref<Drawn>) {
  const { numberIn, cost } = useUnits()
  const columns = computed<Column[]>(() => batch.value.strip.columns)
  const steps = computed<Step[]>(() =>
    columns.value.map((column) => ({
      weightIn: numberIn(column.weight_in),
      weightOut: numberIn(column.weight_out),
      price: column.cost ? Number(cost(column.cost)) : null,
      peels: column.peels.map((peel) => ({
        material: peel.material,
        name: peel.name,
        weight: numberIn(peel.weight),
        gain: peel.gain,
      })),
    })),
  )
  const shops = computed(() =>
    batch.value.shops
      .map(({ entry, name, unit_cost }) => ({
        entry,
        name,
        text: cost(unit_cost),
        price: Number(cost(unit_cost)),
      }))
      .sort((one, other) => one.price - other.price),
  )
  const coming = computed<Coming[]>(() => {
    const ahead = batch.value.forecast?.steps ?? []
    if (ahead.length) return ahead.map((step) => ({ kind: step.kind, label: step.label, expected: step }))
    return batch.value.strip.to_come.map((kind) => ({ ...kind, expected: null }))
  })
  const expected = computed(() => coming.value.flatMap(({ expected: step }) => (step === null ? [] : [step])))
  const comingSteps = computed<Step[]>(() => {
    let weightIn = steps.value.at(-1)?.weightOut ?? 0
    return expected.value.map(({ weight }) => {
      const weightOut = numberIn(weight.middle)
      const step = { weightIn, weightOut, price: null, peels: [] }
      weightIn = weightOut
      return step
    })
  })
  const ranges = computed<Range[]>(() =>
    expected.value.map(({ price }) => ({
      low: Number(cost(price.low)),
      middle: Number(cost(price.middle)),
      high: Number(cost(price.high)),
    })),
  )
  const topPrice = computed(() => {
    const prices = [...steps.value.map((step) => step.price ?? 0), ...ranges.value.map((range) => range.high)]
    return Math.max(...prices, ...shops.value.map((shop) => shop.price)) * 1.12
  })
  return { columns, steps, shops, topPrice, coming, comingSteps, ranges }
}

/** "1.05", or ".95" where it is less than one, as a cook notes it; the sign says what came on. */
export function peelText(name: string, weight: string, gain: boolean, room: number): string {
  const figure = `${gain ? '+' : ''}${weight.replace(/^0\./, '.')}`
  const space = Math.max(4, room - figure.length - 1)
  if (name.length > space && name.startsWith('lost,')) return `lost ${figure}`
  const short = name.length > space ? `${name.slice(0, space - 1)}…` : name
  return `${short} ${figure}`
}
