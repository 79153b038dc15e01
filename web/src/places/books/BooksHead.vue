<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
/** The name of a book, and the way to the others. */
defineProps<{ title: string; note?: string }>()
const books = [
  { name: 'yields', word: 'Yields' },
  { name: 'unusual', word: 'Unusual results' },
  { name: 'trials', word: 'Trials' },
  { name: 'money', word: 'Money' },
  { name: 'price-book', word: 'Prices' },
  { name: 'forecasts', word: 'Forecasts' },
  { name: 'batches', word: 'All batches' },
  { name: 'everything', word: 'In and out' },
]
</script>

<template>
  <div class="head">
    <h1>{{ title }}</h1>
    <span v-if="note" class="quiet" role="status">{{ note }}</span>
    <div class="acts"><slot /></div>
  </div>
  <nav aria-label="Books">
    <ActLink v-if="$route.name !== 'books'" small :to="{ name: 'books' }">Overview</ActLink>
    <ActLink v-for="book in books" :key="book.name" small :to="{ name: book.name }">
      {{ book.word }}
    </ActLink>
  </nav>
</template>

<style scoped>
nav {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 14px;
}

nav a.router-link-active {
  background: var(--ink);
  color: #fff;
}
</style>
