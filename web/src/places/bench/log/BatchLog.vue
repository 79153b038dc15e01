<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Batch, Entry } from '@/shared/api/client'
import { momentText } from '@/shared/quantity/when'

/** Everything that was recorded, the latest first; wrong entries stay readable beside what corrects them. */
const props = defineProps<{ batch: Batch; correctingId: number | null }>()
defineEmits<{ correct: [entry: Entry] }>()

/** So many entries are drawn at a time: hundreds at once would keep the page from answering. */
const AT_ONCE = 40
const drawn = ref(AT_ONCE)
const { pause } = useIntervalFn(() => {
  drawn.value += AT_ONCE
  if (drawn.value < props.batch.log.length) return
  // all of it from now on: what is recorded later must not push the first entries out
  drawn.value = Infinity
  pause()
}, 30)
const entries = computed(() => [...props.batch.log].reverse())
const numberOf = (id: number | null): number | undefined =>
  props.batch.log.find((entry) => entry.id === id)?.sequence
const isTakenBack = (entry: Entry): boolean =>
  props.batch.log.find((one) => one.id === entry.overruled_by)?.act === 'withdraw'
const canCorrect = (entry: Entry): boolean => entry.overruled_by === null && entry.act !== 'withdraw'
</script>

<template>
  <ol class="log">
    <li
      v-for="entry in entries.slice(0, drawn)"
      :key="entry.id"
      :class="{ overruled: entry.overruled_by, open: entry.id === correctingId }"
    >
      <span class="number narrow" :aria-label="`entry ${entry.sequence}`">{{ entry.sequence }}</span>
      <div>
        <p class="title">
          <b>{{ entry.label }}</b>
          <span class="quiet small">{{ momentText(entry.happened_at) }}, {{ entry.by }}</span>
        </p>
        <p v-for="line in entry.lines" :key="line" class="line">{{ line }}</p>
        <p v-if="entry.corrects" class="mark">
          {{ entry.act === 'withdraw' ? 'Cancels' : 'Corrects' }} entry {{ numberOf(entry.corrects) }}: “{{
            entry.reason
          }}”
        </p>
        <p v-if="entry.overruled_by" class="mark">
          {{ isTakenBack(entry) ? 'Canceled' : 'Corrected' }} by entry {{ numberOf(entry.overruled_by) }}; no
          longer counts
        </p>
      </div>
      <ActButton
        v-if="canCorrect(entry)"
        small
        :aria-label="`Correct entry ${entry.sequence}, ${entry.label}`"
        @click="$emit('correct', entry)"
      >
        Correct
      </ActButton>
    </li>
  </ol>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: start;
  padding: 10px 0;
  border-top: 1px solid #e4e8e6;
  content-visibility: auto;
  contain-intrinsic-size: auto 64px;
}

li:first-child {
  border-top: 0;
}

.number {
  color: var(--quiet);
  font-size: 13px;
  line-height: 22px;
  text-align: right;
}

.title {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  align-items: baseline;
}

.overruled .line {
  text-decoration: line-through;
  color: var(--quiet);
}

.open {
  background: var(--care-ground);
}

.line {
  font-size: 14px;
  overflow-wrap: anywhere;
}

.mark {
  font-size: 13px;
  color: var(--care-ink);
  font-weight: 600;
}
</style>
