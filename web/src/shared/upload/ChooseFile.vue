<script setup lang="ts">
/** The button that chooses a table of a spreadsheet. */
defineProps<{ chosen: boolean }>()
const emit = defineEmits<{ choose: [file: File] }>()

function take(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  // so that the same file, mended, can be chosen again
  input.value = ''
  if (file) emit('choose', file)
}
</script>

<template>
  <label class="act">
    {{ chosen ? 'Choose another file' : 'Choose a file' }}
    <input class="unseen" type="file" accept=".csv,.txt,.tsv,.xlsx" @change="take" />
  </label>
</template>

<style scoped>
.act:focus-within {
  outline: 3px solid var(--rose);
  outline-offset: 2px;
}
</style>
