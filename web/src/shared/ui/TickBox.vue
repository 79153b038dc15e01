<script setup lang="ts" generic="T extends boolean | string[]">
import { NCheckbox } from 'naive-ui'
import { computed } from 'vue'

/** On or off; over a list: whether `value` is in it. */
const { value = '', disabled } = defineProps<{ value?: string; disabled?: boolean }>()
const model = defineModel<T>({ required: true })
const isOn = computed(() => (Array.isArray(model.value) ? model.value.includes(value) : model.value === true))

function set(on: boolean): void {
  const now = model.value
  if (!Array.isArray(now)) model.value = on as T
  else model.value = (on ? [...now, value] : now.filter((one) => one !== value)) as T
}
</script>

<template>
  <NCheckbox
    class="tick"
    :checked="isOn"
    :disabled="disabled"
    :aria-disabled="disabled || undefined"
    @update:checked="set"
  >
    <slot />
  </NCheckbox>
</template>
