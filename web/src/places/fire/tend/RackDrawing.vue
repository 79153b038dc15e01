<script setup lang="ts">
import { computed } from 'vue'
import type { Live } from '@/places/fire/useFires'
import { useUnits } from '@/shared/quantity/useUnits'

/** The pieces on their racks as they hang in the smoker, each with its probe's number and what that reads. */
const props = defineProps<{ live: Live }>()
const { figure } = useUnits()
/** What the piece was read by: a probe, or by hand, and where in it. */
function readBy(one: Live['hanging'][number]): string {
  const where = one.where ? `, ${one.where}` : ''
  if (one.is_by_hand) return `by hand${where}`
  return one.probe ? `probe ${one.probe}${where}` : 'no probe'
}
const ago = (at: string): string => {
  const minutes = Math.round((Date.parse(props.live.now) - Date.parse(at)) / 60_000)
  return minutes < 120 ? `${minutes} min ago` : `${Math.round(minutes / 60)} h ago`
}
const racks = computed(() => {
  const found = new Map<number, Live['hanging']>()
  for (const one of props.live.hanging) found.set(one.rack, [...(found.get(one.rack) ?? []), one])
  return [...found].sort(([a], [b]) => a - b)
})
</script>

<template>
  <section class="smoker" :aria-label="live.cooker || 'Pieces'">
    <div class="top">
      <h2>{{ live.cooker || 'By hand' }}</h2>
      <span v-if="live.air">air {{ figure(live.air) }} °{{ live.unit }}</span>
    </div>
    <div v-for="[rack, pieces] in racks" :key="rack" class="rack">
      <span class="narrow">{{ rack ? `rack ${rack}` : '' }}</span>
      <ul>
        <li v-for="one in pieces" :key="one.label" :class="{ coldest: one.is_coldest }">
          <RouterLink :to="{ name: 'log', params: { code: one.code } }">{{ one.label }}</RouterLink>
          <span class="narrow small">{{ readBy(one) }}</span>
          <b :class="{ old: one.is_unread }">{{ one.now ? `${figure(one.now)}°` : '–' }}</b>
          <span v-if="one.is_unread" class="small">{{ one.read_at ? ago(one.read_at) : 'not read' }}</span>
          <span v-else-if="one.is_coldest" class="small">coldest</span>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.smoker {
  background: #3a4245;
  color: #ffffff;
  border-radius: 4px;
  padding: 14px 16px;
  display: grid;
  gap: 8px;
}

.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

.rack {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
  align-items: center;
  gap: 6px;
  border-bottom: 3px solid #8b9692;
  padding-bottom: 6px;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

li {
  flex: 1 1 150px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  background: #a83f57;
  border-radius: 3px;
  padding: 6px 10px;
}

li.coldest {
  background: #8e1f38;
}

li b.old {
  opacity: 0.75;
  font-size: 19px;
}

li a {
  font-weight: 700;
  text-decoration: none;
}

li b {
  grid-column: 2;
  grid-row: 1 / span 2;
  align-self: center;
  font-size: 24px;
  font-weight: 760;
  font-stretch: 110%;
}
</style>
