<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText, momentText, spanText } from '@/shared/quantity/when'
import FindingList from '@/shared/ui/FindingList.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import ChamberAir from './ChamberAir.vue'
import HangForm from './HangForm.vue'
import LossDrawing from './LossDrawing.vue'
import { colorOf } from './lossScale'
import NoteForm from './NoteForm.vue'
import { useChamber, useHooks } from './useChamber'

/** What hangs: how much it has lost, when it is dry, and what the air and the pH say. */
const { data: chamber, error, refetch } = useChamber()
const { hang, note, hangProblem, noteProblem } = useHooks()
const { weightText, like, money, percent, figure } = useUnits()
const isHanging = ref(false)
const next = computed(() => chamber.value?.hanging.find((one) => one.low && one.why !== 'reached'))
/** Chambers that were ever heard. */
const heard = computed(() => (chamber.value?.chambers ?? []).filter((one) => one.temp ?? one.humidity))
/** What the one chamber that is heard says now; without one what was noted last. */
const air = computed(() => {
  const now = heard.value.filter((one) => one.is_heard)
  return now.length === 1 ? now[0] : chamber.value?.air.at(-1)
})
const summary = computed(() => {
  const count = chamber.value?.hanging.length ?? 0
  const parts = [count === 1 ? 'one piece hangs' : `${count || 'no'} pieces hang`]
  if (air.value?.temp) parts.push(`${figure(air.value.temp)} °${chamber.value?.unit}`)
  if (air.value?.humidity) parts.push(`${percent(Number(air.value.humidity))} humidity`)
  return parts.join(', ')
})
const findings = computed(() => {
  const every = (chamber.value?.hanging ?? []).flatMap((one) => one.findings)
  return every.filter((one, index) => every.findIndex((other) => other.message === one.message) === index)
})
/** What the log knows of it shows on its curve at once. */
function follow(one: { code: string; mark: string; since: string }): void {
  const body = { green: '', target: '', chamber: '', cell: '' }
  hang({ ...body, code: one.code, mark: one.mark, hung_at: one.since }, () => {})
}
const price = (cost: { per_lb: string; per_kg: string } | null): string =>
  cost ? money(like(cost.per_lb, cost.per_kg)) : '–'
</script>

<template>
  <div class="head">
    <h1>Chamber</h1>
    <span v-if="chamber" class="quiet">{{ summary }}</span>
    <div class="acts">
      <ActButton v-may:cook :aria-expanded="isHanging" @click="isHanging = !isHanging">
        Hang a piece
      </ActButton>
    </div>
  </div>
  <LoadState v-if="!chamber" :error="error" what="the chamber" @retry="refetch()" />
  <template v-else>
    <HangForm
      v-if="isHanging || !chamber.hanging.length"
      :hung="chamber.hanging.map((one) => one.label)"
      :heard="chamber.chambers"
      :targets="chamber.targets"
      :problem="hangProblem"
      @hang="(body) => hang(body, () => (isHanging = false))"
    />
    <section v-if="chamber.loose.length" class="panel loose" aria-label="Hangs by the log">
      <p v-for="one in chamber.loose" :key="one.label">
        <b>{{ one.label }}</b>, {{ weightText(one.weight) }}, hangs since {{ dayText(one.since) }} by its log.
        <ActButton v-may:cook small @click="follow(one)">Follow it here</ActButton>
      </p>
    </section>
    <TwoColumns v-if="chamber.hanging.length" side-first>
      <section class="panel" aria-label="Lost since green weight">
        <div class="top">
          <h2>Lost since green weight</h2>
          <span class="quiet small">dots are weighings, the bar is when it is ready, eight times of ten</span>
        </div>
        <LossDrawing :hanging="chamber.hanging" />
      </section>
      <NoteForm
        :hanging="chamber.hanging"
        :unit="chamber.unit"
        :problem="noteProblem"
        @note="(id, about) => note(id, about, () => {})"
      />
      <FindingList :findings="findings" label="What to mind" />
      <template #side>
        <section v-if="next" class="panel" aria-label="Next ready">
          <p class="quiet">Next ready</p>
          <p class="heavy">{{ spanText(next.low!, next.high!) }}</p>
          <p>
            <b>{{ next.label }}</b>, then at about <b>{{ weightText(next.weight_at_target) }}</b>. A
            {{ like('pound', 'kilogram') }} will have cost <b>{{ price(next.price_at_target) }}</b>, now
            {{ price(next.price) }}.
          </p>
        </section>
        <ChamberAir v-for="one in heard" :key="one.name" :chamber="one" :unit="chamber.unit" />
        <ul class="rod" aria-label="What hangs">
          <li v-for="(one, index) in chamber.hanging" :key="one.id">
            <span class="string" aria-hidden="true" />
            <RouterLink
              class="body"
              :style="{ background: colorOf(index) }"
              :to="{ name: 'weigh', params: { code: one.code }, query: { kind: 'hang' } }"
              ><b>{{ one.label }}</b
              ><span class="small">{{ weightText(one.weight) }}</span></RouterLink
            >
            <b>−{{ percent(one.lost) }}</b>
            <span class="quiet small">of {{ percent(one.target) }}</span>
            <span class="quiet small">{{
              one.why === 'reached'
                ? '✓ dry'
                : one.low && one.high
                  ? spanText(one.low, one.high)
                  : (one.why ?? '')
            }}</span>
          </li>
        </ul>
        <section v-for="one in chamber.hanging.filter((hook) => hook.ferment)" :key="one.id" class="panel">
          <h2>{{ one.label }} ferments</h2>
          <p>
            <b>{{ figure(one.ferment!.degree_hours) }} of {{ figure(one.ferment!.limit) }} °F·hours</b>,
            {{
              one.ferment!.reached_at
                ? `pH ${figure('5.3')} reached ${momentText(one.ferment!.reached_at)}`
                : `pH ${figure(one.ferment!.ph ?? 'not read')}`
            }}.
            <span :class="one.ferment!.state === 'failed' ? 'dear' : 'good'">{{
              { met: '✓ met', running: 'running', failed: '▲ too many' }[one.ferment!.state]
            }}</span>
          </p>
          <p class="quiet small">{{ one.ferment!.source }}</p>
        </section>
      </template>
    </TwoColumns>
    <template v-if="chamber.down.length">
      <h2>Taken down</h2>
      <ul class="lines">
        <li v-for="one in chamber.down" :key="one.id">
          <b>{{ one.label }}</b>
          <span class="quiet"
            >lost {{ percent(one.lost) }} in {{ Math.round(one.day) }} days, hung
            {{ dayText(one.hung_at) }}</span
          >
        </li>
      </ul>
    </template>
  </template>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0 10px;
}

h2 {
  margin: 0 0 6px;
}

.heavy {
  font-size: 30px;
  font-weight: 780;
  font-stretch: 112%;
  line-height: 1.15;
  color: var(--rose-deep);
}

.rod {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  border-top: 5px solid var(--ink);
  background: var(--panel);
  padding: 0 14px 12px;
}

.rod li {
  flex: 1 1 88px;
  display: grid;
  justify-items: center;
  text-align: center;
}

.string {
  width: 4px;
  height: 18px;
  background: #8b9692;
}

.body {
  display: grid;
  align-content: center;
  justify-items: center;
  width: 84px;
  min-height: 92px;
  border-radius: 36px;
  color: #ffffff;
  text-decoration: none;
}
</style>
