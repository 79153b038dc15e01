<script setup lang="ts">
import { NButton } from 'naive-ui'

/** A button, or with `href` a link. `first`: the next act of the screen, the one that is filled. */
defineProps<{
  first?: boolean
  small?: boolean
  /** Without a frame: beside what it belongs to. */
  quiet?: boolean
  /** As high as what stands on it, which is laid out by who asks. */
  card?: boolean
  submit?: boolean
  disabled?: boolean
  href?: string
}>()
</script>

<template>
  <NButton
    class="act"
    :class="{ first, card }"
    :tag="href === undefined ? 'button' : 'a'"
    :href="href"
    :attr-type="submit ? 'submit' : 'button'"
    :type="first ? 'primary' : 'default'"
    :size="small ? 'small' : 'medium'"
    :quaternary="quiet"
    :disabled="disabled"
  >
    <slot />
  </NButton>
</template>

<style scoped>
.card {
  height: auto;
  white-space: normal;
  text-align: left;
  line-height: 1.4;
  font-weight: 400;
}

.card :deep(.n-button__content) {
  display: contents;
}
</style>
