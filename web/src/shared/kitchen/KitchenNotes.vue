<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/shared/api/useSession'

/** What is to be known on every page: that one only reads here, and that the disk is nearly full. */
const { session, kitchen } = useSession()
const notes = computed(() => {
  const found: string[] = []
  const low = session.value?.disk_low
  if (low) found.push(`The disk is nearly full: ${low} are left. Make room before records cannot be saved.`)
  if (kitchen.value?.role === 'reader')
    found.push('You are a reader here: you see everything, and record nothing.')
  if (kitchen.value?.role === 'helper')
    found.push('You are a helper here: you weigh, and tick off what is to do.')
  return found
})
</script>

<template>
  <p v-for="note in notes" :key="note" class="note small" role="note">{{ note }}</p>
</template>

<style scoped>
.note {
  max-width: 1280px;
  margin: 0 auto;
  padding: 6px 24px;
  background: var(--care-ground);
  border-bottom: 1px solid var(--edge);
}
</style>
