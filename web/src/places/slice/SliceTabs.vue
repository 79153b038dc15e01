<script setup lang="ts">
/** The views of this place, one beside the other. */
const views = [
  { name: 'slice', word: 'Larder' },
  { name: 'dishes', word: 'Dishes' },
  { name: 'cupboard', word: 'Store cupboard' },
]
</script>

<template>
  <nav aria-label="Slice">
    <RouterLink v-for="view in views" :key="view.name" :to="{ name: view.name }">{{ view.word }}</RouterLink>
  </nav>
</template>

<style scoped>
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-bottom: 6px;
}

a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  color: var(--quiet);
  font-weight: 640;
  text-decoration: none;
  border-bottom: 3px solid transparent;
}

.router-link-exact-active {
  color: var(--ink);
  border-bottom-color: var(--rose);
}
</style>
