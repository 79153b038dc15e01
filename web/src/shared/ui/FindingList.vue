<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'

/** What was found worth saying, each kind in one way: what could hurt stands out, the rest is a note. */
defineProps<{ findings: Schemas['FindingOut'][]; label: string }>()
</script>

<template>
  <ul v-if="findings.length" :aria-label="label">
    <li v-for="one in findings" :key="one.code + one.message" :class="one.severity">
      <span v-if="one.severity !== 'note'" aria-hidden="true">▲</span> {{ one.message }}
      <span v-if="one.source" class="quiet small">{{ one.source }}</span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 6px;
}

li {
  border-left: 6px solid var(--edge);
  background: var(--panel);
  padding: 8px 12px;
  font-size: 14px;
}

.care,
.ask {
  border-left-color: var(--care);
  background: var(--care-ground);
}

.refuse {
  border-left-color: var(--rose);
  font-weight: 600;
}
</style>
