<script setup lang="ts">
import { X } from '@lucide/vue'
import { NButton } from 'naive-ui'
import { nextTick } from 'vue'

defineProps<{ label: string }>()
const emit = defineEmits<{ remove: [] }>()

/** The row goes, and the focus to the button before it: never to the top of the page. */
async function remove(event: MouseEvent): Promise<void> {
  const form = (event.currentTarget as HTMLElement).closest('form, section, main')
  const buttons = [...(form?.querySelectorAll<HTMLElement>('button:not(:disabled)') ?? [])]
  const before = buttons[buttons.indexOf(event.currentTarget as HTMLElement) - 1]
  emit('remove')
  await nextTick()
  const next = before?.isConnected ? before : form?.querySelector<HTMLElement>('button:not(:disabled)')
  next?.focus()
}
</script>

<template>
  <NButton quaternary attr-type="button" class="remove" :aria-label="label" @click="remove">
    <X :size="18" aria-hidden="true" />
  </NButton>
</template>

<style scoped>
.remove {
  align-self: start;
  width: 44px;
  padding: 0;
  margin-top: 22px;
}
</style>
