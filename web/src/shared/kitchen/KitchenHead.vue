<script setup lang="ts">
import { useSession } from '@/shared/api/useSession'

/** The kitchen's pages: its settings, and for owners its people and who did what. */
defineProps<{ title: string }>()
const { kitchen, may } = useSession()
</script>

<template>
  <div class="head">
    <h1>{{ title }}</h1>
    <nav aria-label="Kitchen" class="acts">
      <RouterLink class="act small" :to="{ name: 'kitchen' }">{{ kitchen?.name }}</RouterLink>
      <template v-if="may('owner')">
        <RouterLink class="act small" :to="{ name: 'people' }">People</RouterLink>
        <RouterLink class="act small" :to="{ name: 'audit' }">Who did what</RouterLink>
      </template>
      <RouterLink class="act small" :to="{ name: 'own' }">My page</RouterLink>
    </nav>
  </div>
</template>

<style scoped>
.router-link-exact-active {
  background: var(--ink);
  color: #fff;
}
</style>
