import { computed } from 'vue'
import { useSession } from '@/shared/api/useSession'
import { countryOf, signOf } from '@/shared/kitchen/regions'
import type { Schemas } from '@/shared/api/client'

export type Unit = 'lb' | 'kg'
type Weight = Schemas['Weight']
type UnitCost = Schemas['UnitCost']

const words: Record<Unit, string> = { lb: 'pound', kg: 'kilogram' }

/** How this kitchen reads weights and money: its own unit first, the other one beside it. Formats only. */
export function useUnits() {
  const { kitchen } = useSession()
  const unit = computed<Unit>(() => kitchen.value?.weight_unit ?? 'lb')
  const other = computed<Unit>(() => (unit.value === 'lb' ? 'kg' : 'lb'))
  const degrees = computed<'F' | 'C'>(() => kitchen.value?.temperature_unit ?? 'F')
  const isMetric = computed(() => unit.value === 'kg')
  const unitWord = computed(() => words[unit.value])

  /** A figure with the kitchen's decimal sign. */
  const figure = (printed: string): string =>
    kitchen.value?.decimal_sign === ',' ? printed.replace('.', ',') : printed

  const country = computed(() => countryOf(kitchen.value?.country ?? ''))
  /** Thousands apart, as the country has it; where that is the decimal sign chosen, they stay together. */
  function grouped(printed: string): string {
    const group = (country.value?.group ?? '').replace(' ', '\u202f')
    if (!group || group === kitchen.value?.decimal_sign) return printed
    const [whole = '', rest] = printed.split(/[.,]/)
    const apart = whole.replace(/\B(?=(\d{3})+$)/g, group)
    return rest === undefined ? apart : `${apart}${printed[whole.length] ?? ''}${rest}`
  }

  /** A share in per cent, with the decimal sign; a dash where there is none. */
  const percent = (value: string | number | null | undefined): string =>
    value == null || value === '' ? '–' : `${figure(String(value))} %`

  /** What is said for pounds, or for kilograms: an example in a field, a word. */
  const like = (pounds: string, kilograms: string): string => (isMetric.value ? kilograms : pounds)
  const inUnit = (weight: Weight): string => figure(weight[unit.value])
  const numberIn = (weight: Weight): number => Number(weight[unit.value])
  const weightText = (weight: Weight): string => `${figure(weight[unit.value])} ${unit.value}`
  const otherText = (weight: Weight): string => `${figure(weight[other.value])} ${other.value}`
  const bothText = (weight: Weight): string => `${weightText(weight)} (${otherText(weight)})`

  const lengthText = (length: Schemas['Length']): string =>
    unit.value === 'lb' ? `${figure(length.inch)} in` : `${figure(length.cm)} cm`

  /** What stands before an amount: "$", or a currency's own letters. */
  const sign = computed(() => signOf(kitchen.value?.currency ?? 'USD'))

  function money(amount: string | null | undefined): string {
    // empty: kept from who is not shown prices
    if (amount == null || amount === '') return '–'
    const rules = country.value
    const printed = amount.replace(/^-/, '')
    const placed = rules?.digits === 0 ? Number(printed).toFixed(0) : printed
    const bare = grouped(figure(placed))
    const worded = rules?.symbol === 'after' ? `${bare}\u00a0${sign.value.trim()}` : `${sign.value}${bare}`
    return amount.startsWith('-') ? `−${worded}` : worded
  }
  const cost = (price: UnitCost): string => (unit.value === 'lb' ? price.per_lb : price.per_kg)
  const costText = (price: UnitCost): string => money(cost(price))
  const otherCostText = (price: UnitCost): string =>
    `${money(unit.value === 'lb' ? price.per_kg : price.per_lb)} a ${words[other.value]}`

  return {
    country,
    unit,
    other,
    unitWord,
    isMetric,
    degrees,
    figure,
    percent,
    like,
    sign,
    inUnit,
    numberIn,
    weightText,
    otherText,
    bothText,
    lengthText,
    money,
    cost,
    costText,
    otherCostText,
  }
}

/** "a sliced pound", or "a pound after “hang”" where the stage is a cook's own word. */
export const ofStage = (stage: string, unitWord: string): string =>
  stage.startsWith('after ') ? `${unitWord} ${stage}` : `${stage} ${unitWord}`

/** Without its minus sign, for words that say the direction themselves. */
export const without = (amount: string): string => amount.replace(/^-/, '')
