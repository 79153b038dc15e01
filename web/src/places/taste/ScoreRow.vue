<script setup lang="ts">
import { computed } from 'vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'

/** One scale of one plate: a row of numbers to touch. */
const props = defineProps<{
  label: string
  low: string
  high: string
  least: number
  most: number
  score: number | null
}>()
const emit = defineEmits<{ set: [score: number] }>()
const steps = computed(() =>
  Array.from({ length: props.most - props.least + 1 }, (_, at) => String(props.least + at)).map((value) => ({
    value,
    word: value,
  })),
)
</script>

<template>
  <ChoiceBar
    class="score"
    :label="label"
    :choices="steps"
    :model-value="score === null ? null : String(score)"
    @update:model-value="emit('set', Number($event))"
  />
  <div class="ends small quiet" aria-hidden="true">
    <span>{{ low }}</span><span>{{ high }}</span>
  </div>
</template>

<style scoped>
.score {
  margin-top: 8px;
}

.score :deep(.bar) {
  display: grid;
  grid-template-columns: repeat(9, minmax(0, 1fr));
  gap: 3px;
}

.score :deep(.n-radio-button) {
  padding: 0;
  text-align: center;
}

.ends {
  display: flex;
  justify-content: space-between;
}
</style>
