<script setup lang="ts">
import { computed } from 'vue'
import type { Verdict } from '@/shared/api/client'
import { ofStage, useUnits } from '@/shared/quantity/useUnits'

/**
 * What 10 % worse of each does to the price of a pound of what is left, the worst first. Under way that is
 * the price so far, not the forecast the shop is compared with, and the heading says so.
 */
const props = defineProps<{ verdict: Verdict }>()
const { money, unit, unitWord } = useUnits()
const bars = computed(() => {
  const all = props.verdict.levers.map((lever) => ({
    label: lever.label,
    text: unit.value === 'lb' ? lever.change_per_lb : lever.change_per_kg,
  }))
  const most = Math.max(...all.map((bar) => Math.abs(Number(bar.text))), 0.01)
  return all.map((bar) => ({ ...bar, share: Math.abs(Number(bar.text)) / most })).slice(0, 8)
})
const heading = computed(() =>
  props.verdict.judged.house.is_finished ? 'What matters most' : 'What matters most in the price so far',
)
</script>

<template>
  <section class="panel" :aria-label="heading">
    <h2>{{ heading }}</h2>
    <p class="quiet small">
      how much more a {{ ofStage(verdict.judged.house.stage, unitWord) }} costs if each gets 10 % worse
    </p>
    <ol>
      <li v-for="bar in bars" :key="bar.label">
        <span class="narrow">{{ bar.label }}</span>
        <span class="line">
          <i :style="{ width: `${bar.share * 74}%` }" aria-hidden="true"></i>
          <b>{{ money(bar.text) }}</b>
        </span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  margin-top: 6px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 8px;
  align-items: center;
  font-size: 14px;
  line-height: 1.2;
  padding: 3px 0;
}

.line {
  display: flex;
  align-items: center;
  gap: 6px;
}

.line i {
  height: 14px;
  background: var(--lean);
}

b {
  font-weight: 600;
}
</style>
