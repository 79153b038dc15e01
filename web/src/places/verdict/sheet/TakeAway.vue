<script setup lang="ts">
import { useSlug } from '@/shared/api/useSlug'
import DropPanel from '@/shared/ui/DropPanel.vue'

/** The batch as a file: page, tables, open document. */
defineProps<{ code: string }>()
const slug = useSlug()
const forms = [
  { form: 'pdf', word: 'One page to print (PDF)' },
  { form: 'xlsx', word: 'The ledger as a workbook (XLSX)' },
  { form: 'csv', word: 'The ledger as plain tables (CSV)' },
  { form: 'json', word: 'The batch document (JSON)' },
]
</script>

<template>
  <DropPanel word="Export">
    <ul>
      <li v-for="one in forms" :key="one.form">
        <a
          :href="`/api/kitchens/${slug}/batches/${code}/files/${one.form}`"
          :download="`${code}.${one.form}`"
        >
          {{ one.word }}
        </a>
      </li>
    </ul>
  </DropPanel>
</template>

<style scoped>
a {
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 0 6px;
}
</style>
