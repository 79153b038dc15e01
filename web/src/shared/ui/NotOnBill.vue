<script setup lang="ts">
/** What was weighed out for the cure and has no price, so that its cost is missing. */
defineProps<{ names?: string[] | undefined }>()
</script>

<template>
  <p v-if="names?.length" class="small" role="status">
    <span aria-hidden="true">▲</span> Not on the bill, for no price is listed: {{ names.join(', ') }}.
  </p>
</template>
