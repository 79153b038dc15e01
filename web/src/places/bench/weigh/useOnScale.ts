import { computed, ref, type Ref, shallowRef, watch } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { useMeaning } from './useMeaning'
import type { useScale } from '@/shared/scale/useScale'
import type { Part, useWeighing } from './useWeighing'

/** A piece in words: the lot itself has no mark of its own. */
export const named = (piece: string): string => (piece === 'lot' ? 'the whole piece' : piece)

/** What is on the scale or was typed, for which piece, what it means, and what the button would take. */
export function useOnScale(options: {
  code: Ref<string>
  kind: Ref<string>
  seen: Ref<number>
  scale: ReturnType<typeof useScale>
  work: ReturnType<typeof useWeighing>
}) {
  const { unit } = useUnits()
  const typed = ref('')
  const isTyping = ref(false)
  const off = ref<Part | null>(null)
  const hasPad = computed(
    () => isTyping.value || !['live', 'over', 'waiting'].includes(options.scale.state.value),
  )

  const mark = computed(() => {
    if (!options.work.isCut.value) return options.work.current.value?.mark ?? ''
    return off.value ? off.value.name : options.work.nextMark.value
  })
  const shown = computed(() => named(mark.value))
  const isTyped = computed(() => hasPad.value && typed.value !== '')
  const figure = computed(() => {
    if (isTyped.value) return typed.value
    return options.scale.state.value === 'live' ? (options.scale.event.value?.net?.[unit.value] ?? '') : ''
  })
  const weight = computed(() => (figure.value ? `${figure.value} ${unit.value}` : ''))
  const asked = computed(() => {
    if (options.work.isCut.value || !mark.value || !(Number(figure.value) > 0)) return null
    if (!isTyped.value && options.scale.isTaken.value) return null
    const { code, kind, seen, work } = options
    return {
      code: code.value,
      seen: seen.value,
      kind: kind.value,
      mark: mark.value,
      weight: weight.value,
      heat: work.heat.value,
    }
  })
  const { meaning: meant } = useMeaning(asked)
  /** For whom a weight is, what it means, and the fire the piece came out of. */
  const atHand = computed(() => ({
    shown: shown.value,
    meaning: options.work.isCut.value ? null : meant.value,
    fire: options.work.isCut.value ? undefined : options.work.fireOf(mark.value),
  }))
  /** The same of what was taken last: shown until it is lifted off. */
  const latest = shallowRef<typeof atHand.value | null>(null)
  const taken = computed(() => (options.scale.isTaken.value && !isTyped.value ? latest.value : null))
  const said = computed(() => taken.value ?? atHand.value)
  const canTake = computed(
    () => mark.value !== '' && (isTyped.value ? Number(typed.value) > 0 : options.scale.isTakeable.value),
  )
  const button = computed(() => {
    if (canTake.value) return `Take ${weight.value} for ${shown.value}`
    if (hasPad.value) return `Type the weight of ${shown.value}`
    return options.scale.state.value === 'live' && options.scale.words.value === 'moving'
      ? 'Not steady …'
      : `Put ${shown.value} on the scale`
  })
  const step = computed(() =>
    isTyped.value ? '' : `${options.scale.event.value?.step ?? ''} g`.replace(/^ g$/, ''),
  )

  function take(): void {
    if (!canTake.value) return
    latest.value = atHand.value
    if (options.work.isCut.value) options.work.takePart(weight.value, off.value)
    else options.work.takeWeight(weight.value, step.value)
    off.value = null
    stopTyping()
    options.scale.took()
  }
  watch(
    () => options.work.current.value?.mark,
    () => (typed.value = ''),
  )

  function type(figure: string): void {
    isTyping.value = true
    if (figure === '.' && typed.value.includes('.')) return
    if (typed.value.length < 7) typed.value += figure
  }
  function stopTyping(): void {
    isTyping.value = false
    typed.value = ''
  }
  return {
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
  }
}
