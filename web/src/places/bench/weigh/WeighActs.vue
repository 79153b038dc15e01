<script setup lang="ts">
/** What a knuckle presses: the one button that says what it records, and few others. */
defineProps<{
  word: string
  canTake: boolean
  canTare: boolean
  hasTare: boolean
  isTyping: boolean
  /** Empty: nothing to record or undo. */
  doneWord: string
  undoWord: string
  swapWord: string
}>()
defineEmits<{ take: []; tare: []; type: []; done: []; undo: []; swap: [] }>()
</script>

<template>
  <div class="acts">
    <!-- room is kept for these: nothing may come to lie under a finger that touches twice -->
    <div class="latest">
      <button v-if="doneWord" type="button" @click="$emit('done')">{{ doneWord }}</button>
      <button v-else-if="swapWord" type="button" @click="$emit('swap')">{{ swapWord }}</button>
      <button v-if="undoWord" type="button" class="undo" @click="$emit('undo')">{{ undoWord }}</button>
    </div>
    <button type="button" class="take" :disabled="!canTake" @click="$emit('take')">{{ word }}</button>
    <button type="button" :disabled="!canTare" @click="$emit('tare')">
      {{ hasTare ? 'Clear tare' : 'Tare' }}
    </button>
    <button type="button" :aria-pressed="isTyping" @click="$emit('type')">
      {{ isTyping ? 'Use the scale' : 'Type it in' }}
    </button>
  </div>
</template>

<style scoped>
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

.latest {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: inherit;
  min-height: 56px;
}

.acts .latest button {
  min-height: 56px;
  font-size: 18px;
}

.latest .undo {
  grid-column: 2;
}

@media (max-width: 1099px) {
  .acts {
    grid-template-columns: 1fr 1fr;
  }

  .acts .take {
    grid-column: 1 / -1;
  }

  .acts button {
    min-height: 84px;
  }
}

@media (max-width: 719px) {
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

  .latest {
    grid-row: 3;
  }

  .acts .latest button {
    font-size: 16px;
  }
}
</style>
