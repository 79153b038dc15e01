<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, watch } from 'vue'
import { ring } from './sound'
import { isLoud, useAlarms } from './useAlarms'

/** Rings while an alarm is not quieted, at once and then every twenty seconds, where sound is wished. */
const { loud } = useAlarms()
const keys = computed(() => (isLoud.value ? loud.value.map((one) => `${one.fire} ${one.key}`) : []))
const { pause, resume } = useIntervalFn(ring, 20_000, { immediate: false })
watch(
  keys,
  (now, before) => {
    if (now.some((key) => !before?.includes(key))) {
      ring()
      resume()
    } else if (!now.length) pause()
  },
  { immediate: true },
)
</script>

<template><span hidden /></template>
