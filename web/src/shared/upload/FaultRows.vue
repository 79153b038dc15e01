<script setup lang="ts">
/** Rows of a list that cannot be read, each with its number, why, and what it says. */
defineProps<{ faults: { row: number; message: string; cells: string[] }[] }>()
</script>

<template>
  <div v-if="faults.length" class="faults" tabindex="0" role="region" aria-label="Rows left out">
    <h3>Rows that cannot be read</h3>
    <ul>
      <li v-for="fault in faults" :key="fault.row">
        <b>Row {{ fault.row }}:</b> {{ fault.message }}
        <span class="quiet small">{{ fault.cells.filter(Boolean).join(' · ') }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.faults {
  max-height: 320px;
  overflow-y: auto;
  width: 100%;
}

h3 {
  font-size: 15px;
  margin: 0 0 4px;
}
</style>
