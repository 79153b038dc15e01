<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import { useSession } from '@/shared/api/useSession'

/** The kitchen's pages: its settings, and for owners its people and who did what. */
defineProps<{ title: string }>()
const { kitchen, may } = useSession()
</script>

<template>
  <div class="head">
    <h1>{{ title }}</h1>
    <nav aria-label="Kitchen" class="acts">
      <ActLink small :to="{ name: 'kitchen' }">{{ kitchen?.name }}</ActLink>
      <template v-if="may('owner')">
        <ActLink small :to="{ name: 'people' }">People</ActLink>
        <ActLink small :to="{ name: 'audit' }">Who did what</ActLink>
      </template>
      <ActLink small :to="{ name: 'own' }">My page</ActLink>
    </nav>
  </div>
</template>

<style scoped>
.router-link-exact-active {
  background: var(--ink);
  color: #fff;
}
</style>
