<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useAlarms } from '@/shared/alarms/useAlarms'
import { useToday } from '@/shared/api/useBatch'
import { useSession } from '@/shared/api/useSession'
import { moneyPlaces, places } from './places'

/** The seven places along the rail, with what hangs at each. */
const route = useRoute()
const { seesMoney } = useSession()
const today = useToday()
const shown = computed(() => places.filter((one) => seesMoney.value || !moneyPlaces.has(one.name)))
const here = computed(() => route.meta['place'])
const { loud, alarms, pieces } = useAlarms()
/** What hangs in fires and chambers is counted there; elsewhere what batches say. */
const hanging = (name: string): number =>
  name === 'fire' ? pieces.value : (today.data.value?.hanging?.[name] ?? 0)
const isCalling = (name: string): boolean => name === 'fire' && loud.value.length > 0
function labelOf(place: (typeof places)[number]): string {
  const count = hanging(place.hangs)
  const calls = place.name === 'fire' && alarms.value.length ? `, alarms: ${alarms.value.length}` : ''
  if (!count) return place.word + calls
  const what = place.name === 'today' ? 'under way' : count === 1 ? 'piece here' : 'pieces here'
  return `${place.word}, ${count} ${what}${calls}`
}
</script>

<template>
  <nav aria-label="Places">
    <RouterLink
      v-for="place in shown"
      :key="place.name"
      :to="{ name: place.name }"
      :class="{ here: place.name === here }"
      :aria-current="place.name === here ? 'page' : undefined"
      :aria-label="labelOf(place)"
      :title="labelOf(place)"
    >
      <span class="hook" :class="{ full: hanging(place.hangs) > 0, calling: isCalling(place.name) }">
        {{ isCalling(place.name) ? '▲' : hanging(place.hangs) || '' }}
      </span>
      <span>{{ place.word }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
nav {
  position: relative;
  display: flex;
  justify-content: space-between;
}

nav::before {
  content: '';
  position: absolute;
  inset: 20px 0 auto;
  border-top: 3px solid #566064;
}

nav a {
  flex: 1 1 0;
  display: grid;
  justify-items: center;
  gap: 6px;
  padding: 9px 0 12px;
  text-decoration: none;
  font-weight: 600;
  font-size: 14px;
  font-stretch: 92%;
  border-bottom: 4px solid transparent;
}

nav a.here {
  color: #ffffff;
  border-bottom-color: var(--rose-dark);
}

.hook {
  position: relative;
  width: 24px;
  height: 24px;
  border-radius: 50%;
  border: 3px solid #566064;
  background: var(--rail);
  font-size: 12px;
  line-height: 18px;
  text-align: center;
  font-weight: 750;
}

.hook.full {
  background: #f2f5f3;
  border-color: #f2f5f3;
  color: #1b1f1e;
}

.here .hook {
  background: var(--rose-dark);
  border-color: var(--rose-dark);
  color: #1b1f1e;
}

.hook.calling {
  background: #ffd489;
  border-color: #ffd489;
  color: #5a1420;
}

@media (max-width: 719px) {
  nav {
    position: fixed;
    inset: auto 0 0;
    z-index: 5;
    background: var(--rail);
    border-top: 2px solid #161b1d;
    padding-bottom: env(safe-area-inset-bottom);
  }

  nav::before {
    inset: 17px 0 auto;
  }

  nav a {
    font-size: 13px;
    font-stretch: 80%;
    gap: 2px;
    padding: 8px 0 6px;
  }

  .hook {
    width: 20px;
    height: 20px;
    line-height: 14px;
    font-size: 11px;
  }
}
</style>
