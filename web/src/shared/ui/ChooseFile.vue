<script setup lang="ts">
import { NUpload } from 'naive-ui'
import ActButton from './ActButton.vue'

/** The button that chooses a file; what becomes of it is up to who asked. */
defineProps<{ word: string; accept?: string; first?: boolean; disabled?: boolean }>()
const emit = defineEmits<{ choose: [file: File] }>()
</script>

<template>
  <NUpload
    class="choose"
    :accept="accept ?? '.csv,.txt,.tsv,.xlsx'"
    :default-upload="false"
    :show-file-list="false"
    :file-list="[]"
    :disabled="disabled"
    :input-props="{ 'aria-label': word }"
    @change="({ file }) => file.file && emit('choose', file.file)"
  >
    <ActButton :first="first" :disabled="disabled">{{ word }}</ActButton>
  </NUpload>
</template>

<style scoped>
.choose {
  width: auto;
  justify-self: start;
}
</style>
