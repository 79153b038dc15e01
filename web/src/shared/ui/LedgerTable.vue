<script setup lang="ts">
import { NTable } from 'naive-ui'
/** A short table of figures, as in a ledger: rows by lines, no frame. */
</script>

<template>
  <NTable size="small" :bordered="false"><slot /></NTable>
</template>

<style scoped>
:deep(th) {
  white-space: normal;
}
</style>
