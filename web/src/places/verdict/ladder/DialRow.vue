<script setup lang="ts">
import { computed, useId } from 'vue'
import { useFieldFacts } from '@/shared/writing/formFacts'

/** One thing to try: by slider or by typing. A bar marks where the record stands. */
const props = defineProps<{
  label: string
  path: string
  was: string
  unit: string
  least: number
  most: number
  step: number
  places: number
}>()
const value = defineModel<string>({ required: true })
const id = useId()
const { fault } = useFieldFacts(() => props.path)
const isMoved = computed(() => value.value !== props.was)
const share = computed(() => {
  const at = (Number(props.was) - props.least) / (props.most - props.least)
  return Math.min(Math.max(at, 0), 1)
})
const slid = computed({
  get: () => {
    const number = Number(value.value)
    return Number.isFinite(number) && value.value !== '' ? number : Number(props.was)
  },
  set: (to: number) => (value.value = Number(to).toFixed(props.places)),
})
</script>

<template>
  <div class="dial" :class="{ moved: isMoved }">
    <label :for="id">{{ label }}</label>
    <div class="track">
      <i :style="{ left: `calc(10px + (100% - 20px) * ${share})` }" aria-hidden="true"></i>
      <input
        v-model.number="slid"
        type="range"
        :min="least"
        :max="most"
        :step="step"
        :aria-label="`${label}, slide`"
      />
    </div>
    <input
      :id="id"
      v-model="value"
      type="text"
      inputmode="decimal"
      autocomplete="off"
      maxlength="20"
      :aria-invalid="fault ? true : undefined"
      :aria-describedby="`${id}-detail`"
    />
    <p :id="`${id}-detail`" class="detail narrow">
      <span v-if="fault" class="fault">{{ fault }}</span>
      <template v-else
        >{{ unit }}<template v-if="isMoved">, was {{ was }}</template></template
      >
    </p>
  </div>
</template>

<style scoped>
.dial {
  display: grid;
  grid-template-columns: 92px minmax(70px, 1fr) 72px 96px;
  gap: 10px;
  align-items: center;
  min-height: 46px;
  border-top: 1px solid #e4e8e6;
}

label {
  font-weight: 640;
}

.track {
  position: relative;
}

.track i {
  position: absolute;
  top: 50%;
  width: 3px;
  height: 16px;
  margin: -8px 0 0 -1px;
  background: #8b9692;
}

input[type='range'] {
  position: relative;
  width: 100%;
  height: 40px;
  margin: 0;
  appearance: none;
  background: none;
  cursor: pointer;
}

input[type='range']::-webkit-slider-runnable-track {
  height: 4px;
  background: var(--edge);
}

input[type='range']::-moz-range-track {
  height: 4px;
  background: var(--edge);
}

input[type='range']::-webkit-slider-thumb {
  appearance: none;
  width: 20px;
  height: 20px;
  margin-top: -8px;
  border: 2px solid var(--ink);
  border-radius: 50%;
  background: var(--panel);
}

input[type='range']::-moz-range-thumb {
  width: 16px;
  height: 16px;
  border: 2px solid var(--ink);
  border-radius: 50%;
  background: var(--panel);
}

.moved input[type='range']::-webkit-slider-thumb {
  background: var(--ink);
}

.moved input[type='range']::-moz-range-thumb {
  background: var(--ink);
}

input[type='text'] {
  width: 100%;
  min-height: 44px;
  font: inherit;
  font-weight: 700;
  text-align: right;
  padding: 0 6px;
  border: 1px solid #8b9692;
  border-radius: 4px;
}

.moved input[type='text'] {
  border: 2px solid var(--ink);
}

@media (max-width: 719px) {
  .dial {
    grid-template-columns: 92px 76px minmax(0, 1fr);
    gap: 0 10px;
    padding: 6px 0 0;
  }

  .track {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}

.detail {
  font-size: 13px;
  color: var(--quiet);
  line-height: 1.2;
}

.fault {
  color: var(--rose-deep);
  font-weight: 600;
}
</style>
