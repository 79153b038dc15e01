<script setup lang="ts">
import { NCollapse, NCollapseItem } from 'naive-ui'
import { computed, useId, watch } from 'vue'

/** What is not always looked at, under a line that opens it. */
const props = defineProps<{ word: string; open?: boolean }>()
const shown = defineModel<boolean>('shown', { default: false })
const id = useId()
watch(
  () => props.open,
  (open) => (shown.value = open),
  { immediate: true },
)
const names = computed(() => (shown.value ? ['it'] : []))
const set = (open: (string | number)[]): unknown => (shown.value = open.length > 0)
</script>

<template>
  <NCollapse :expanded-names="names" display-directive="show" @update:expanded-names="set">
    <NCollapseItem name="it">
      <template #header>
        <span
          class="line"
          role="button"
          tabindex="0"
          :aria-expanded="shown"
          :aria-controls="id"
          @keydown.enter.space.prevent="shown = !shown"
        >
          <slot name="word">{{ word }}</slot>
        </span>
      </template>
      <div :id="id"><slot /></div>
    </NCollapseItem>
  </NCollapse>
</template>

<style scoped>
:deep(.n-collapse-item) {
  --n-title-text-color: currentcolor !important;
  --n-text-color: currentcolor !important;
}

.line {
  min-height: 44px;
  align-content: center;
  display: grid;
  flex: 1;
}
</style>
