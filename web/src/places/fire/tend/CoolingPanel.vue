<script setup lang="ts">
import type { Live } from '@/places/fire/useFires'
import { hoursText } from '@/shared/quantity/when'

/** Cooling followed leg by leg against both rules. */
defineProps<{ live: Live }>()
const words = { waiting: 'not begun', running: 'running', met: '✓ met', failed: '▲ failed' } as const
const rules = { plain: 'Cooked', cured: 'Cured' } as const
</script>

<template>
  <section class="panel" aria-label="Cooling">
    <h2>Cooling</h2>
    <p v-if="!live.cooling.length" class="quiet">Nothing to follow: it began below the marks.</p>
    <ul>
      <li v-for="leg in live.cooling" :key="leg.name" :class="leg.state">
        <span
          ><b>{{ rules[leg.rule] }}: {{ leg.label }}</b></span
        >
        <span>{{ words[leg.state] }}</span>
        <span class="quiet small">
          {{ hoursText(leg.seconds) }} of {{ hoursText(leg.most_seconds)
          }}<template v-if="leg.state === 'running'"
            >, {{ hoursText(leg.most_seconds - leg.seconds) }} left</template
          >. {{ leg.source }}</span
        >
      </li>
    </ul>
    <p v-if="live.cooling.some((leg) => leg.state === 'failed')" class="small">
      Where a leg failed, the rule says: do not sell it, and ask your local food authority. At home, people
      throw it away, or eat none of it without someone's advice who knows. What was recorded stays.
    </p>
  </section>
</template>

<style scoped>
section,
ul {
  display: grid;
  gap: 8px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 10px;
  border-left: 6px solid var(--edge);
  padding-left: 10px;
}

li .small {
  grid-column: 1 / -1;
}

.met {
  border-left-color: var(--good);
}

.failed {
  border-left-color: var(--rose);
}

.running {
  border-left-color: var(--care);
}
</style>
