<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed } from 'vue'
import type { Problem } from '@/shared/api/client'
import { momentText } from '@/shared/quantity/when'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import type { Trial } from './useTrials'

/** The tastings of a trial: the open one's link and the plates' codes, and a new one. */
const props = defineProps<{ trial: Trial; problem: Problem | null; isSaving: boolean }>()
defineEmits<{ open: [] }>()
const open = computed(() => props.trial.tastings.filter((one) => one.is_open))
const over = computed(() => props.trial.tastings.filter((one) => !one.is_open))
const address = (path: string): string => `${location.origin}${path}`
const codes = (one: Trial['tastings'][number]): [string, string, string][] =>
  Object.entries(one.codes).map(([letter, code]) => [
    code,
    letter,
    props.trial.sides.find((side) => side.letter === letter)?.what ?? '',
  ])
const copy = (text: string): void => void navigator.clipboard?.writeText(text)
</script>

<template>
  <section class="panel" aria-label="Blind tasting">
    <h2>Blind tasting</h2>
    <template v-for="one in open" :key="one.id">
      <p>Open until {{ momentText(one.closes_at) }}. Every taster opens this link on a phone of their own:</p>
      <p class="link">
        <a :href="one.path">{{ address(one.path) }}</a>
      </p>
      <ActButton small @click="copy(address(one.path))">Copy the link</ActButton>
      <p class="quiet">Plate these, and keep the list from the tasters:</p>
      <ul class="codes">
        <li v-for="[code, letter, what] in codes(one)" :key="code">
          <b class="code">{{ code }}</b> {{ letter }} {{ what }}
        </li>
      </ul>
      <p role="status">
        {{ one.tasters.length ? `Handed in: ${one.tasters.join(', ')}.` : 'Nobody has handed in yet.' }}
      </p>
    </template>
    <ul v-if="over.length" class="quiet small">
      <li v-for="one in over" :key="one.id">
        Until {{ momentText(one.closes_at) }}: {{ one.tasters.join(', ') || 'nobody' }}
      </li>
    </ul>
    <ProblemNote v-if="problem" :problem="problem" />
    <ActButton :class="{ first: !open.length }" :disabled="isSaving" @click="$emit('open')">
      {{ trial.tastings.length ? 'Open another tasting' : 'Open a tasting' }}
    </ActButton>
    <p class="quiet small">
      The link needs no account and lives a day. Each phone shows the plates in an order of its own. Give
      every taster the same small piece of each, and water between.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  justify-items: start;
}

.link {
  overflow-wrap: anywhere;
  font-size: 14px;
}

.code {
  font-size: 22px;
  font-weight: 760;
  margin-right: 8px;
}
</style>
