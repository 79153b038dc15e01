<script setup lang="ts">
import { useUnits } from '@/shared/quantity/useUnits'
import { timeText } from '@/shared/quantity/when'
import type { Live } from '@/places/fire/useFires'

/** Whether it is cooked through: both reductions by what decided, the coldest, and the home rule. */
const props = defineProps<{ live: Live }>()
const { figure } = useUnits()
const wide = (part: string): string => `${Math.min(100, Number(part) * 100)}%`
const decided = (): string => (props.live.cooked_by ? `by ${props.live.cooked_by}, the coldest` : '')
</script>

<template>
  <section class="panel" aria-label="Cooked through?">
    <div class="top">
      <h2>Cooked through?</h2>
      <span class="quiet small">{{ decided() }}</span>
    </div>
    <p v-if="live.unread.length" role="note">
      <b>Not read: {{ live.unread.join(', ') }}.</b> What was not read counts for nothing here.
    </p>
    <div v-for="one in live.lethality" :key="one.name" class="bar">
      <span>{{ one.name }}</span>
      <span class="track"><span :style="{ width: wide(one.part) }" :class="{ met: one.met_at }" /></span>
      <b>{{ figure(one.part) }}</b>
      <span :class="one.met_at ? 'good' : 'quiet'">{{
        one.met_at ? `✓ met ${timeText(one.met_at)}` : `of ${figure('1.00')}`
      }}</span>
    </div>
    <p v-if="!live.lethality.length" class="quiet">
      Poultry has tables of its own; the home rule below holds.
    </p>
    <p v-if="live.home_rule">
      At home: {{ live.home_rule }}.
      <span :class="live.home_met_at ? 'good' : 'quiet'">{{
        live.home_met_at ? `✓ met ${timeText(live.home_met_at)}` : 'Not yet.'
      }}</span>
    </p>
    <p class="quiet small">{{ live.lethality_source }}</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  align-content: start;
}

.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 10px;
}

.bar {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr) 48px 92px;
  gap: 10px;
  align-items: center;
}

.bar b {
  text-align: right;
}

.track {
  height: 14px;
  background: #e0e5e2;
  border-radius: 3px;
  overflow: hidden;
}

.track > span {
  display: block;
  height: 100%;
  background: #6f8f8a;
}

.track > .met {
  background: var(--good);
}
</style>
