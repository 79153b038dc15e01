<script setup lang="ts">
import type { Alarm } from './useAlarms'

/** What asks for the cook now, each with the fire it is of. */
defineProps<{ alarms: Alarm[]; named?: boolean }>()
defineEmits<{ quiet: [alarm: Alarm] }>()
</script>

<template>
  <ul v-if="alarms.length" aria-label="Alarms">
    <li v-for="one in alarms" :key="one.fire + one.key" :class="{ quieted: one.is_quiet }">
      <p>
        <span aria-hidden="true">▲ </span>
        <RouterLink v-if="named" :to="{ name: 'fire-live', params: { id: one.fire } }">{{
          one.name
        }}</RouterLink>
        {{ one.text }}
      </p>
      <slot :alarm="one" />
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 8px;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  justify-content: space-between;
  padding: 10px 14px;
  border-radius: 5px;
  background: var(--rose-deep);
  color: #ffffff;
}

li.quieted {
  background: none;
  color: var(--ink);
  border: 2px solid var(--rose-deep);
}

li a {
  color: inherit;
  font-weight: 640;
}
</style>
