<script setup lang="ts">
import { vMay } from '@/shared/kitchen/vMay'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { levelWords as words, type Lying } from './useStores'

/** A fridge, smoker or chamber as it stands: shelves from the top, places side by side, what lies there. */
const props = defineProps<{ store: Schemas['StoreOut']; held: Lying | null }>()
const emit = defineEmits<{ hold: [piece: Lying]; put: [level: number, slot: number]; change: [] }>()
const { weightText } = useUnits()
const at = (level: number, slot: number): Lying[] =>
  props.store.lying.filter((one) => one.level === level && one.slot === slot)
const isHeld = (piece: Lying): boolean => props.held?.code === piece.code && props.held.mark === piece.mark
const name = (piece: Lying): string => `${piece.code} ${piece.mark === 'lot' ? 'whole' : piece.mark}`
function touch(level: number, slot: number): void {
  if (props.held) emit('put', level, slot)
}
</script>

<template>
  <section class="store" :class="store.sort" :aria-label="store.name">
    <h2>
      {{ store.name }}
      <button
        v-may:cook
        type="button"
        class="small"
        :aria-label="`Change ${store.name}`"
        @click="$emit('change')"
      >
        change
      </button>
    </h2>
    <div v-for="level in store.levels" :key="level" class="level">
      <span class="word">{{ words[store.sort] }} {{ level }}</span>
      <div
        v-for="slot in store.slots"
        :key="slot"
        class="slot"
        :class="{ open: held, twice: at(level, slot).length > 1 }"
      >
        <button
          v-for="piece in at(level, slot)"
          :key="name(piece)"
          type="button"
          class="piece"
          :class="{ held: isHeld(piece) }"
          :aria-pressed="isHeld(piece)"
          @click="$emit('hold', piece)"
        >
          <b>{{ name(piece) }}</b>
          <span class="small">{{ piece.label.toLowerCase() }}, {{ weightText(piece.weight) }}</span>
        </button>
        <button
          v-if="held"
          type="button"
          class="here"
          :aria-label="`Put ${name(held)} in ${store.name}, ${words[store.sort]} ${level}, place ${slot}`"
          @click="touch(level, slot)"
        >
          here
        </button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.store {
  padding: 12px;
  background: #dfe5e2;
  border: 3px solid #20272a;
  border-radius: 6px;
}

.store.smoker {
  background: #4a4f4d;
  color: #f2f5f3;
}

.store.chamber {
  background: #cddbd5;
}

h2 {
  display: flex;
  justify-content: space-between;
  margin-bottom: 8px;
}

h2 button {
  min-height: 44px;
  background: none;
  border: 0;
  color: inherit;
  font: inherit;
  font-size: 13px;
  text-decoration: underline;
  cursor: pointer;
}

.level {
  display: flex;
  gap: 8px;
  padding: 6px 0 8px;
  border-bottom: 3px solid #56615f;
  align-items: stretch;
}

.word {
  flex: 0 0 52px;
  font-size: 13px;
  font-stretch: 84%;
  align-self: center;
}

.slot {
  flex: 1 1 0;
  min-width: 0;
  min-height: 62px;
  display: grid;
  gap: 4px;
  align-content: stretch;
  border: 1px dashed #8b9692;
  border-radius: 4px;
}

.slot.twice {
  border: 2px solid var(--care);
}

.piece,
.here {
  min-height: 56px;
  border: 0;
  border-radius: 4px;
  font: inherit;
  cursor: pointer;
  text-align: left;
  padding: 4px 8px;
}

.piece {
  display: grid;
  background: #d9657a;
  color: #1b0b10;
  overflow-wrap: anywhere;
  line-height: 1.2;
}

.piece.held {
  outline: 3px solid #ffffff;
  box-shadow: 0 0 0 6px var(--rose);
}

.here {
  min-height: 44px;
  background: #ffffff;
  color: var(--ink);
  text-align: center;
}
</style>
