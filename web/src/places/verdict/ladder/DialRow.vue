<script setup lang="ts">
import { computed } from 'vue'
import SlideBar from '@/shared/ui/SlideBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'

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
    <p>
      <b aria-hidden="true">{{ label }}</b>
      <span class="narrow small quiet"
        >{{ unit }}<template v-if="isMoved">, was {{ was }}</template></span
      >
    </p>
    <div class="track">
      <i :style="{ left: `${share * 100}%` }" aria-hidden="true"></i>
      <SlideBar v-model="slid" :label="`${label}, slide`" :min="least" :max="most" :step="step" />
    </div>
    <TypedInput
      v-model="value"
      class="figure"
      :label="label"
      quiet-label
      tight
      :path="path"
      inputmode="decimal"
      maxlength="20"
    />
  </div>
</template>

<style scoped>
.dial {
  display: grid;
  grid-template-columns: minmax(90px, 1fr) minmax(70px, 2fr) 80px;
  gap: 16px;
  align-items: center;
  padding: 3px 0;
  border-top: 1px solid #e4e8e6;
}

p {
  display: grid;
  line-height: 1.2;
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

.moved .figure {
  font-weight: 700;
}
</style>
