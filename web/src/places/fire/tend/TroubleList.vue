<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed } from 'vue'
import { timeText } from '@/shared/quantity/when'
import type { EventIn, Live } from '@/places/fire/useFires'

/** What is wrong, one sentence each, and the touch that puts it right where there is one. */
const props = defineProps<{ live: Live }>()
defineEmits<{ happened: [event: Partial<EventIn> & { kind: EventIn['kind'] }] }>()
const names = {
  fire_low: 'Fire low',
  smoke_warm: 'Smoke too warm',
  probe_out: 'Probe out?',
  probe_swap: 'Probes mixed up?',
  gap: 'Nothing read',
  danger: 'Too long in the danger zone',
} as Record<string, string>
/** The latest first; what goes on now before what is over. */
const shown = computed(() =>
  [...props.live.troubles]
    .reverse()
    .sort((a, b) => Number(b.is_on) - Number(a.is_on))
    .slice(0, 4),
)
/** The probe in the piece that was read by hand, to be swapped with the one that was found. */
function partner(found: string | null): string | null {
  const here = props.live.curves.filter((one) => one.is_now)
  const other = here.find((one) => one.id === found)
  return other ? (here.find((one) => one.piece !== other.piece)?.probe ?? null) : null
}
</script>

<template>
  <ul v-if="shown.length" aria-label="What is wrong">
    <li v-for="one in shown" :key="one.code + one.begun_at" :class="{ over: !one.is_on }">
      <p>
        <b
          ><span aria-hidden="true">▲</span> {{ names[one.code] }}
          {{ one.is_on ? `since ${timeText(one.begun_at)}` : `at ${timeText(one.begun_at)}` }}.</b
        >
        {{ one.text }}
      </p>
      <ActButton
        v-if="one.code === 'probe_swap' && partner(one.probe) && live.state !== 'done'"
        small
        @click="$emit('happened', { kind: 'swap', probe: one.probe ?? '', other: partner(one.probe) ?? '' })"
      >
        Swap probes {{ one.probe }} and {{ partner(one.probe) }} from here on
      </ActButton>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 8px;
}

li {
  display: grid;
  gap: 6px;
  justify-items: start;
  border-left: 6px solid var(--care);
  background: var(--care-ground);
  padding: 10px 12px;
  font-size: 14px;
}

.over {
  border-left-color: var(--edge);
  background: var(--panel);
}
</style>
