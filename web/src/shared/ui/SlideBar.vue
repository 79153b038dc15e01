<script setup lang="ts">
import { NSlider } from 'naive-ui'
import { onMounted, ref } from 'vue'

/** A figure found by sliding; its name is for the ear. */
const props = defineProps<{ label: string; min: number; max: number; step: number }>()
const value = defineModel<number>({ required: true })
const frame = ref<HTMLElement | null>(null)
onMounted(() => frame.value?.querySelector('[role="slider"]')?.setAttribute('aria-label', props.label))
</script>

<template>
  <div ref="frame"><NSlider v-model:value="value" :min="min" :max="max" :step="step" :tooltip="false" /></div>
</template>
