<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useOnline } from '@vueuse/core'
import { computed, ref } from 'vue'
import { api, type Problem, refusal, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { clockWords } from '@/shared/api/deviceClock'
import { isSlow } from '@/shared/api/patience'
import { discard, insist, isEntry, type Letter, send, tryAgain, useOutbox } from './outbox'

/** What waits on this device, in plain words; what was refused, to be settled by the cook. */
const { waiting, refused, others, trouble } = useOutbox()
const kitchen_slug = useSlug()
const words = computed(() => {
  const count = waiting.value.length
  const what = count === 1 ? '1 record waits' : `${count} records wait`
  if (trouble.value?.code === 'signed_out') return `Signed out: ${what} on this device`
  if (trouble.value?.code === 'no_connection') return `No connection: ${what} on this device`
  return `The server is in trouble: ${what} on this device`
})
const shown = computed(() => waiting.value.length > 0 && trouble.value !== null)
const isOnline = useOnline()
/** Why what was refused could not be tried anew. */
const trying = ref<Problem | null>(null)

async function allTheSame(letter: Letter): Promise<void> {
  if (!isEntry(letter.body)) return insist(letter, 0)
  const path = { kitchen_slug: kitchen_slug.value, code: letter.code }
  trying.value = await refusal(async () => {
    const batch = await take(api.GET('/api/kitchens/{kitchen_slug}/batches/{code}', { params: { path } }))
    insist(letter, batch.seen)
  })
}
</script>

<template>
  <div
    v-if="shown || refused.length || others || isSlow || clockWords || !isOnline"
    class="outbox on-bar"
    role="status"
    aria-label="Waiting to be sent"
  >
    <p v-if="!isOnline && !shown" class="waits">
      <b>No connection:</b> this is what was last seen on this device. Weighings, notes and check-offs wait
      here and are sent later; other forms keep what you typed for you to send.
    </p>
    <p v-if="shown" class="waits">
      <b>{{ words }}</b>
      <span>{{ waiting.map((letter) => letter.words).join(', ') }}</span>
      <ActButton @click="send()">Try now</ActButton>
    </p>
    <p v-if="clockWords" class="waits">
      <b>This device’s clock is {{ clockWords }}.</b> What is weighed and ticked off here is recorded by the
      kitchen’s clock; times you type stay as typed. Set the clock of the device.
    </p>
    <p v-if="isSlow && !shown" class="waits">
      <b>Still waiting for an answer.</b> Keep this page open; what you typed is kept.
    </p>
    <p v-if="others" class="waits">
      {{ others === 1 ? '1 record' : `${others} records` }} of another cook on this device
      {{ others === 1 ? 'is' : 'are' }} sent when that cook signs in here again.
    </p>
    <p v-if="trying && refused.length" class="waits" role="alert">{{ trying.detail }}</p>
    <div v-for="letter in refused" :key="letter.key" class="refused" role="alert">
      <p>
        <b>Not recorded: {{ letter.words }}{{ letter.code ? ` in ${letter.code}` : '' }}.</b>
        {{ letter.problem?.detail }}
      </p>
      <ul v-if="letter.problem?.changes?.length">
        <li v-for="change in letter.problem.changes" :key="change">{{ change }}</li>
      </ul>
      <ActButton v-if="letter.problem?.code === 'moved_on'" @click="allTheSame(letter)">
        Record it anyway
      </ActButton>
      <ActButton v-if="letter.problem?.code === 'server_error'" @click="tryAgain(letter)">
        Try again
      </ActButton>
      <ActButton @click="discard(letter)">Discard this record</ActButton>
    </div>
  </div>
</template>

<style scoped>
.outbox {
  display: grid;
  gap: 6px;
  padding: 8px 16px;
  background: #3a2c0f;
  color: #ffd489;
  font-size: 15px;
}

.waits,
.refused {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}

.waits span {
  flex: 1 1 160px;
  min-width: 0;
}

.refused p {
  flex: 1 1 260px;
}
</style>
