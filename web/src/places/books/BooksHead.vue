<script setup lang="ts">
/** The name of a book, and what is done with it. */
defineProps<{ title: string; note?: string }>()
</script>

<template>
  <div class="head">
    <h1>{{ title }}</h1>
    <span v-if="note" class="quiet" role="status">{{ note }}</span>
    <div class="acts"><slot /></div>
  </div>
</template>
