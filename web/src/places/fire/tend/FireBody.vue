<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { computed } from 'vue'
import AlarmList from '@/shared/alarms/AlarmList.vue'
import { isLoud } from '@/shared/alarms/useAlarms'
import type { Problem } from '@/shared/api/client'
import { useUnits, without } from '@/shared/quantity/useUnits'
import { momentText, timeText } from '@/shared/quantity/when'
import FindingList from '@/shared/ui/FindingList.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import type { EventIn, Live } from '@/places/fire/useFires'
import CookedThrough from './CookedThrough.vue'
import CoolingPanel from './CoolingPanel.vue'
import FireDrawing from './FireDrawing.vue'
import FireTouches from './FireTouches.vue'
import PullOrWait from './PullOrWait.vue'
import RackDrawing from './RackDrawing.vue'
import ReadyPanel from './ReadyPanel.vue'
import TroubleList from './TroubleList.vue'

/** When it is ready, whether anything is wrong, pull or wait, whether it is cooked through: of a real fire or practice. */
const props = defineProps<{
  live: Live
  isSaving: boolean
  problem: Problem | null
  /** Practice: one piece and one probe, read by the fire itself. */
  plain?: boolean
}>()
defineEmits<{ happened: [event: Partial<EventIn> & { kind: EventIn['kind'] }]; retry: [] }>()

const { figure } = useUnits()
const words = {
  burning: 'in the fire',
  resting: 'resting',
  holding: 'held warm',
  cooling: 'cooling',
  done: 'done',
} as const
const isOut = computed(() => props.live.out_at != null)
const head = computed(() => {
  const { live } = props
  const stage =
    isOut.value || live.stages.length < 2 ? '' : `, stage ${live.stage + 1} of ${live.stages.length}`
  const by = live.program ? `, by ${live.program}` : ''
  return `${words[live.state]}, since ${momentText(live.begun_at)}${stage}${by}`
})
</script>

<template>
  <div class="head">
    <h1>{{ live.name }}</h1>
    <span class="quiet">{{ head }}</span>
    <div v-if="live.state !== 'done'" class="acts">
      <TickBox v-model="isLoud" class="sound">Sound</TickBox>
      <ActButton
        v-if="!isOut && live.stage + 1 < live.stages.length"
        :disabled="isSaving"
        @click="$emit('happened', { kind: 'stage', stage: live.stage + 1 })"
      >
        Next: {{ live.stages[live.stage + 1]!.label }}
      </ActButton>
      <ActButton
        v-if="live.state !== 'resting'"
        :disabled="isSaving"
        @click="$emit('happened', { kind: 'rest' })"
      >
        {{ isOut ? 'Rest' : 'Out of the smoke, rest' }}
      </ActButton>
      <ActButton
        v-if="isOut && live.state !== 'holding'"
        :disabled="isSaving"
        @click="$emit('happened', { kind: 'hold' })"
      >
        Hold warm
      </ActButton>
      <ActButton
        v-if="live.state !== 'cooling'"
        :class="{ first: !isOut }"
        :disabled="isSaving"
        @click="$emit('happened', { kind: 'cool' })"
      >
        {{ isOut ? 'Cool it' : 'Out of the smoke, cool' }}
      </ActButton>
      <ActButton v-if="isOut" first :disabled="isSaving" @click="$emit('happened', { kind: 'done' })">
        Done
      </ActButton>
    </div>
  </div>
  <ProblemNote v-if="problem" :problem="problem" fields retry-word="Try again" @retry="$emit('retry')" />
  <FindingList :findings="live.notes" label="Cautions" />
  <AlarmList v-slot="{ alarm }" :alarms="live.alarms">
    <ActButton
      v-if="!alarm.is_quiet"
      small
      :disabled="isSaving"
      @click="$emit('happened', { kind: 'quiet', text: alarm.key })"
    >
      Silence
    </ActButton>
    <span v-else class="small">quieted</span>
  </AlarmList>
  <div class="live">
    <div class="side">
      <ReadyPanel v-if="!isOut" :live="live" />
      <TroubleList :live="live" @happened="$emit('happened', $event)" />
      <RackDrawing :live="live" />
      <p v-if="live.next_stage" class="panel">
        Next: <b>{{ live.next_stage }}</b>
      </p>
      <slot name="side" />
    </div>
    <div class="main">
      <section class="panel" aria-label="Temperatures">
        <FireDrawing :live="live" />
        <p class="under">
          <span
            ><b class="dear">The coldest decides.</b>
            {{
              live.rate_per_hour
                ? `${live.rate_per_hour.startsWith('-') ? 'Falling' : 'Climbing'} ${figure(without(live.rate_per_hour))} °${live.unit} an hour.`
                : ''
            }}</span
          >
          <span class="quiet small">°{{ live.unit }}, inside and air</span>
        </p>
      </section>
      <FireTouches
        v-if="live.state !== 'done'"
        :live="live"
        :is-saving="isSaving"
        :plain="plain"
        @happened="$emit('happened', $event)"
      />
      <div class="two">
        <CoolingPanel v-if="live.state === 'cooling' || live.cooling.length" :live="live" />
        <PullOrWait v-if="live.pulls.length" :live="live" />
        <CookedThrough :live="live" />
      </div>
      <section class="panel" aria-label="Diary of the fire">
        <h2>What happened</h2>
        <slot name="files" />
        <ol class="lines">
          <li v-for="one in live.events" :key="one.at + one.text">
            <span class="quiet">{{ timeText(one.at) }}</span> {{ one.text }}
            <span class="quiet small">{{ one.by }}</span>
          </li>
        </ol>
      </section>
    </div>
  </div>
</template>

<style scoped>
.live {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(300px, 396px);
  grid-template-areas: 'main side';
  gap: 16px;
  align-items: start;
  margin-top: 8px;
}

.main,
.side {
  display: grid;
  gap: 16px;
  min-width: 0;
}

.main {
  grid-area: main;
}

.side {
  grid-area: side;
}

.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(330px, 1fr));
  gap: 16px;
}

.under {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 14px;
}

@media (max-width: 979px) {
  .live {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: 'side' 'main';
  }

  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
