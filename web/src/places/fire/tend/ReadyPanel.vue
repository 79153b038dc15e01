<script setup lang="ts">
import { computed } from 'vue'
import type { Live } from '@/places/fire/useFires'
import { betweenText, dayOf, hoursText, timeText, weekdayText } from '@/shared/quantity/when'
import { useUnits } from '@/shared/quantity/useUnits'

/** When it is ready, and what that leaves before the meal it is for. */
const props = defineProps<{ live: Live }>()
const { figure } = useUnits()
const ready = computed(() => props.live.ready)
const isReached = computed(() => ready.value?.why === 'reached')
const tender = computed(() => props.live.tender)
const left = computed(() => ready.value?.left_seconds ?? null)
/** Another day than today is said. */
const clock = (moment: string): string =>
  dayOf(moment) === dayOf(props.live.now)
    ? timeText(moment)
    : `${weekdayText(new Date(moment))} ${timeText(moment)}`
</script>

<template>
  <section class="panel" aria-label="Ready">
    <template v-if="ready?.likely && isReached">
      <p class="quiet">{{ figure(live.pull_at ?? '') }} °{{ live.unit }} inside</p>
      <p class="heavy good">✓ {{ clock(ready.likely) }}</p>
      <p>The coldest is there. Pull it when you are.</p>
    </template>
    <template v-else-if="ready?.low && ready.high">
      <p class="quiet">Ready between</p>
      <p class="heavy">{{ betweenText(clock(ready.low), clock(ready.high)) }}</p>
      <p v-if="left !== null && live.meal_at">
        For eating at {{ clock(live.meal_at) }} that leaves <b v-if="left >= 0">{{ hoursText(left) }}</b><b
          v-else
          class="dear"
          >nothing: {{ hoursText(left) }} too late</b
        >
        if it takes long.
      </p>
      <p class="quiet small">Eight times of ten; by the coldest, and the program to come.</p>
    </template>
    <template v-else-if="ready">
      <p class="quiet">Ready</p>
      <p>Not known yet: {{ ready.why }}.</p>
      <p v-if="ready.back_low && ready.back_high">
        If the fire were back now: between <b>{{ clock(ready.back_low) }}</b> and
        <b>{{ clock(ready.back_high) }}</b>.
      </p>
    </template>
    <p v-else class="quiet">No inside temperature is aimed at.</p>
    <p v-if="tender">
      <b>Tender at about {{ clock(tender.likely) }}</b
      ><template v-if="tender.over_seconds !== null"
        >, {{ hoursText(tender.over_seconds) }}
        {{ tender.over_seconds > 0 ? 'more than you have' : 'before the meal' }}</template
      >, at {{ figure(tender.inside) }} °{{ live.unit }} inside<span class="quiet">
        ({{
          tender.cooks
            ? `with ${tender.cooks === 1 ? 'one cook' : `${tender.cooks} cooks`} of your own`
            : 'start value, until you say “tender: yes”'
        }})</span
      >.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 4px;
}

.heavy {
  font-size: 30px;
  font-weight: 780;
  font-stretch: 112%;
  line-height: 1.1;
  color: var(--rose-deep);
}

.heavy.good {
  color: var(--good);
}
</style>
