<script setup lang="ts">
import { NInputNumber } from 'naive-ui'
import { computed, useAttrs, useId } from 'vue'
import FieldItem from './FieldItem.vue'

/** A whole number; empty: none. */
defineOptions({ inheritAttrs: false })
defineProps<{
  label: string
  quietLabel?: boolean
  min?: number
  max?: number
  placeholder?: string
}>()
const value = defineModel<number | null | undefined>({ required: true })
const id = useId()
const { class: place, style, ...attrs } = useAttrs()
const inputProps = computed(() => ({ ...attrs, id, inputmode: 'numeric' as const, autocomplete: 'off' }))
</script>

<template>
  <FieldItem :id="id" :class="place" :style="style" :label="label" :quiet-label="quietLabel">
    <NInputNumber
      :value="value ?? null"
      class="number"
      :min="min"
      :max="max"
      :show-button="false"
      :placeholder="placeholder ?? ''"
      :input-props="inputProps"
      @update:value="(typed) => (value = typed)"
    />
  </FieldItem>
</template>

<style scoped>
.number {
  flex: 1;
}
</style>
