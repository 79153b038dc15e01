<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'

/** An address that leads nowhere. */
</script>

<template>
  <section class="panel lines">
    <h1>No such page</h1>
    <p>
      There is nothing at this address. It may have been typed wrong, or come from a label of another machine.
    </p>
    <p><ActLink :to="{ name: 'today' }">Today</ActLink></p>
  </section>
</template>
