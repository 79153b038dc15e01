<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import type { Cures } from '@/shared/api/client'
import { momentText } from '@/shared/quantity/when'
import CuringTime from './CuringTime.vue'
import NitriteGauge from './NitriteGauge.vue'
import TakeBack from './TakeBack.vue'
import WeighOut from './WeighOut.vue'

/** A cure as it was weighed out: what the desk said then, whatever it would say now; taken back if wrong. */
defineProps<{ code: string; cure: Cures['cures'][number] }>()
const isMistake = ref(false)
</script>

<template>
  <section class="panel" :aria-label="`As weighed out for ${cure.mark}`">
    <p class="quiet">
      {{ cure.recipe || cure.answer.school }}, put in {{ momentText(cure.in_at) }} by {{ cure.by }}
    </p>
    <WeighOut :piece="cure.answer" is-done />
    <TakeBack v-if="isMistake" :code="code" :cure="cure.id" />
    <ActButton v-else v-may:cook class="back" small @click="isMistake = true">
      Recorded by mistake
    </ActButton>
  </section>
  <div class="right">
    <section v-if="cure.answer.gauge" class="panel" aria-label="Was it too much">
      <NitriteGauge :gauge="cure.answer.gauge" />
    </section>
    <section v-if="cure.answer.time" class="panel" aria-label="How long">
      <h2>How long</h2>
      <CuringTime
        :out="cure.answer.time.out"
        :time="cure.answer.time"
        :in-at="cure.in_at"
        :thickness="cure.answer.thickness !== null"
        is-done
      />
    </section>
  </div>
</template>

<style scoped>
.back {
  justify-self: start;
}
</style>
