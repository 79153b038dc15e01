<script setup lang="ts">
/** What is worked on, and beside it what it comes to; on a narrow screen below it, or first where `sideFirst`. */
defineProps<{ sideFirst?: boolean }>()
</script>

<template>
  <div class="two" :class="{ 'side-first': sideFirst }">
    <div class="column"><slot /></div>
    <div class="column side"><slot name="side" /></div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(280px, 390px);
  gap: 16px;
  align-items: start;
}

.column {
  display: grid;
  gap: 16px;
  min-width: 0;
}

@media (max-width: 979px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }

  .side-first .side {
    order: -1;
  }
}
</style>
