<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DateBox from '@/shared/ui/DateBox.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { momentTyped } from '@/shared/quantity/when'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import type { Problem, Schemas } from '@/shared/api/client'
import { labelOf, piecesOf } from '@/places/fire/pieces'
import { useMap } from '@/shared/api/useBench'
import { useUnits } from '@/shared/quantity/useUnits'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import type { HangIn } from './useChamber'

/** Hang a piece: its green weight, and how much it is to lose. */
const props = defineProps<{
  hung: string[]
  heard: Schemas['HeardOut'][]
  /** What a piece is to lose, by what it is to become. */
  targets: Schemas['ChamberOut']['targets']
  problem: Problem | null
}>()
const emit = defineEmits<{ hang: [body: HangIn] }>()
const { data: map } = useMap()
const { weightText } = useUnits()
const chosen = ref('')
const green = ref('')
const target = ref('')
/** Hung earlier: what was weighed since shows on its curve at once. */
const since = ref('')
const chamber = ref('')
const cell = ref('')
/** Load cells belong to a chamber that is heard. */
const hasCells = computed(() => props.heard.some((one) => one.name === chamber.value))
const pieces = computed(() => piecesOf(map.value).filter((piece) => !props.hung.includes(labelOf(piece))))
const chambers = computed(() => [
  ...props.heard.map((one) => one.name),
  ...(map.value?.stores ?? []).filter((store) => store.sort === 'chamber').map((store) => store.name),
])
const piece = computed(() => pieces.value.find((one) => labelOf(one) === chosen.value))
const usual = computed(() => {
  const course = piece.value?.course
  return (course && props.targets[course]) || props.targets.air_dried || ''
})
function hang(): void {
  if (piece.value)
    emit('hang', {
      code: piece.value.code,
      mark: piece.value.mark,
      green: green.value,
      hung_at: since.value ? momentTyped(since.value) : null,
      target: target.value,
      chamber: chamber.value,
      cell: hasCells.value ? cell.value : '',
    })
}
</script>

<template>
  <form v-may:cook class="panel" aria-label="Hang a piece" @submit.prevent="hang">
    <SelectBox v-model="chosen" label="Piece" required>
      <option value="">choose</option>
      <option v-for="one in pieces" :key="labelOf(one)" :value="labelOf(one)">
        {{ labelOf(one) }}, {{ weightText(one.weight) }}
      </option>
    </SelectBox>
    <DateBox v-model="since" label="Hung since, if not now" kind="datetime-local" />
    <TypedInput
      v-model="green"
      label="Green weight"
      :placeholder="piece ? weightText(piece.weight) : 'as it weighs now'"
    />
    <TypedInput v-model="target" label="To lose, %" inputmode="decimal" :placeholder="usual" />
    <TypedInput v-model="chamber" label="Chamber" :suggestions="chambers" maxlength="40" />
    <SelectBox v-if="hasCells" v-model="cell" label="Load cell">
      <option value="">none: weighed by hand</option>
      <option v-for="number in 8" :key="number" :value="String(number)">{{ number }}</option>
    </SelectBox>

    <ActButton first submit>Hang this piece</ActButton>
    <ProblemNote v-if="problem" :problem="problem" fields class="wide" />
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px;
  align-items: end;
  margin-bottom: 16px;
}

.wide {
  grid-column: 1 / -1;
}
</style>
