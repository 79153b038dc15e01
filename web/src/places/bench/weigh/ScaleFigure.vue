<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import type { useScale } from '@/shared/scale/useScale'

/** The weight, large enough to be read at two metres; steady or moving; which scale, and its tare. */
const props = defineProps<{
  scale: ReturnType<typeof useScale>
  shown: string
  figure: string
  isTyped: boolean
  /** What lies there has been taken already. */
  isTaken: boolean
  meaning: Schemas['MeaningOut'] | null
}>()
const { unit, other, weightText } = useUnits()
const state = computed(() => props.scale.state.value)
const isSteady = computed(() => state.value === 'live' && props.scale.event.value?.steady === true)
const beside = computed(() => {
  const weight = props.isTyped ? props.meaning?.weight : props.scale.event.value?.net
  return weight && props.figure ? `${weight[other.value]} ${other.value}` : ''
})
const tare = computed(() => props.scale.event.value?.tare ?? null)
</script>

<template>
  <div class="figure">
    <p class="top">
      <span>
        <template v-if="isTyped"
          >Typed for <b>{{ shown }}</b></template
        >
        <template v-else-if="isTaken"
          >Taken for <b>{{ shown }}</b>, lift it off</template
        >
        <template v-else
          >Piece <b>{{ shown }}</b> on the scale</template
        >
      </span>
      <span
        v-if="scale.names.value && scale.names.value.length > 1"
        class="scales"
        role="group"
        aria-label="Which scale"
      >
        <button
          v-for="name in scale.names.value"
          :key="name"
          type="button"
          :aria-pressed="name === scale.name.value"
          @click="scale.choose(name)"
        >
          {{ name }}
        </button>
      </span>
      <span class="state" :class="{ steady: isSteady, bad: state !== 'live' }" role="status">
        <span aria-hidden="true">{{ isSteady ? '●' : state === 'live' ? '◌' : '▲' }}</span>
        {{ scale.words.value }}
      </span>
    </p>
    <p class="now">
      <span class="number" :class="{ faint: !isTyped && (!isSteady || isTaken) }">{{ figure || '–' }}</span>
      <span class="unit">{{ unit }}</span>
      <span class="beside">{{ beside }}</span>
    </p>
    <p class="scale">
      <template v-if="scale.name.value">
        Scale “{{ scale.name.value }}”<template v-if="scale.event.value?.step">
          · steps of {{ scale.event.value.step }} g</template
        ><template v-if="scale.event.value?.simulated"> · simulated</template>
      </template>
      <template v-if="tare"> · net, tare {{ weightText(tare) }}</template>
    </p>
    <p v-if="scale.problem.value" class="detail" role="alert">{{ scale.problem.value.detail }}</p>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  justify-content: space-between;
  font-size: 19px;
  color: #b9c3bf;
}

.top b {
  color: #eef2ef;
}

.state {
  font-weight: 640;
  color: #e5a94c;
}

.state.steady {
  color: #6fcfa6;
}

.state.bad {
  color: #ffb4a0;
}

.scales button {
  min-height: 44px;
  padding: 0 14px;
  margin-right: 6px;
  border: 2px solid #444f52;
  border-radius: 4px;
  background: transparent;
  color: #eef2ef;
  font: inherit;
  cursor: pointer;
}

.scales button[aria-pressed='true'] {
  border-color: #e0607b;
}

.now {
  display: flex;
  align-items: baseline;
  gap: 18px;
  line-height: 0.95;
  margin-top: 12px;
}

.number {
  font-size: clamp(96px, 17.5vw, 224px);
  font-weight: 760;
  font-stretch: 96%;
  letter-spacing: -0.02em;
}

.number.faint {
  color: #8f9a97;
}

.unit {
  font-size: clamp(28px, 4.4vw, 56px);
  font-weight: 700;
  color: #9aa5a2;
}

.beside {
  margin-left: auto;
  font-size: clamp(17px, 2vw, 26px);
  color: #b9c3bf;
  white-space: nowrap;
}

.scale {
  color: #a9b4b0;
  font-size: 15px;
  margin-top: 8px;
}

.detail {
  color: #ffb4a0;
  margin-top: 6px;
}

@media (max-width: 979px) {
  .now {
    flex-wrap: wrap;
    gap: 4px 12px;
  }

  .number {
    font-size: clamp(84px, 15vw, 150px);
  }
}

@media (max-width: 719px) {
  .top {
    font-size: 16px;
  }

  .now {
    flex-wrap: wrap;
    gap: 4px 8px;
  }

  .number {
    font-size: clamp(84px, 29vw, 130px);
  }
}
</style>
