<script setup lang="ts">
import { useLanes } from '@/shared/api/useBench'
import LoadState from '@/shared/ui/LoadState.vue'
import LanesDrawing from './LanesDrawing.vue'

/** Two weeks from today: who lies where until when. */
const { data: lanes, error, refetch } = useLanes()
</script>

<template>
  <LoadState v-if="!lanes" :error="error" what="the days" @retry="refetch()" />
  <LanesDrawing v-else :lanes="lanes.lanes" :first="lanes.first" :days="lanes.days" :now="lanes.now" />
</template>
