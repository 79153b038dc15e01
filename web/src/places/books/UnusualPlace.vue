<script setup lang="ts">
import LoadState from '@/shared/ui/LoadState.vue'
import BooksHead from './BooksHead.vue'
import UnusualList from './UnusualList.vue'
import { useUnusualBook } from './useBooks'

/** Batches and steps out of the usual. */
const { data, error, refetch } = useUnusualBook()
</script>

<template>
  <BooksHead title="Unusual results" />
  <LoadState v-if="!data" :error="error" what="what was out of the usual" @retry="refetch()" />
  <template v-else>
    <UnusualList :book="data" />
    <p class="quiet small">
      {{ data.looked_at.toLocaleString('en-US') }} yields were compared, each with the others of its cut and
      way or step; about one in twenty lies outside by chance alone.
      <template v-if="data.too_few"> {{ data.too_few }} sorts have too few batches yet. </template>
    </p>
  </template>
</template>
