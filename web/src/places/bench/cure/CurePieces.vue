<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import type { Cures, Pieces, Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import type { CuredPiece } from './recipes'

/** The pieces with their own cures: those on the desk, and those in the cure already, to be looked at. */
defineProps<{
  laid: CuredPiece[]
  left: string[]
  chosen: string
  pieces: Pieces
  answer: Schemas['DeskOut'] | null
  inside: Cures['cures']
  looked: number
}>()
defineEmits<{ choose: [mark: string]; toggle: [mark: string]; look: [id: number] }>()
const { lengthText, weightText } = useUnits()

function answerOf(answer: Schemas['DeskOut'] | null, mark: string): Schemas['DeskPieceOut'] | undefined {
  return answer?.pieces.find((one) => one.mark === mark)
}
function size(piece: Schemas['DeskPieceOut'] | undefined): string {
  const thick = piece?.thickness
  const skin = piece?.skin ? `, skin ${piece.skin}` : ''
  if (!thick) return `thickness not measured${skin}`
  return `${lengthText(thick)} at the thickest part${skin}`
}
</script>

<template>
  <div class="pieces">
    <ul v-if="laid.length" aria-label="On the desk">
      <li v-for="one in laid" :key="one.mark">
        <ActButton
          card
          class="piece"
          :class="{ here: one.mark === chosen, out: left.includes(one.mark) }"
          :aria-pressed="one.mark === chosen"
          @click="$emit('choose', one.mark)"
        >
          <b class="mark">{{ one.mark }}</b>
          <b class="weight">{{
            weightText(pieces.pieces.find((piece) => piece.mark === one.mark)!.weight)
          }}</b>
          <span class="school">{{
            one.recipe.name || answerOf(answer, one.mark)?.school || one.recipe.school
          }}</span>
          <span class="quiet small size">{{ size(answerOf(answer, one.mark)) }}</span>
        </ActButton>
        <TickBox
          class="small"
          :model-value="!left.includes(one.mark)"
          @update:model-value="$emit('toggle', one.mark)"
          >goes in now</TickBox
        >
      </li>
    </ul>
    <ul v-if="inside.length" aria-label="In the cure" class="in">
      <li v-for="cure in inside" :key="cure.id" :class="{ here: cure.id === looked }">
        <ActButton
          card
          quiet
          class="look"
          :aria-pressed="cure.id === looked"
          :aria-label="`Show the cure of ${cure.mark}`"
          @click="$emit('look', cure.id)"
        >
          <b>{{ cure.mark }}</b> {{ cure.recipe.split(',')[0] || cure.answer.school }}
        </ActButton>
        <p class="small">
          in since {{ dayText(cure.in_at) }}, out between {{ dayText(cure.first_at) }} and
          {{ dayText(cure.last_at) }}
        </p>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.pieces,
ul {
  display: grid;
  gap: 10px;
  align-content: start;
}

.piece {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  width: 100%;
  padding: 10px 14px;
  text-align: left;
  font: inherit;
  color: inherit;
  background: var(--panel);
  border: 1px solid var(--edge);
  border-radius: 4px;
  cursor: pointer;
}

.piece.here {
  border: 2px solid var(--rose);
  padding: 9px 13px;
}

.piece.out {
  opacity: 0.72;
}

.mark {
  font-size: 26px;
  line-height: 1.1;
}

.weight {
  font-size: 19px;
  align-self: center;
}

.school,
.size {
  grid-column: 1 / -1;
}

.in li {
  padding: 8px 14px;
  background: #dfe8e3;
  border-left: 6px solid #6f8f8a;
  border-radius: 4px;
  display: grid;
  gap: 4px;
}

.in .here {
  outline: 2px solid var(--rose);
  outline-offset: -2px;
}

.look {
  min-height: 44px;
  padding: 0;
  text-align: left;
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  cursor: pointer;
}

.look b {
  font-size: 20px;
}
</style>
