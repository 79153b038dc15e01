<script setup lang="ts">
import { useLanes } from '@/shared/api/useBench'
import LanesDrawing from './LanesDrawing.vue'

/** Two weeks from today: who lies where until when. */
const { data: lanes, error } = useLanes()
</script>

<template>
  <p v-if="!lanes" class="panel quiet">{{ error ? error.problem.detail : 'Loading the days …' }}</p>
  <LanesDrawing v-else :lanes="lanes.lanes" :first="lanes.first" :days="lanes.days" :now="lanes.now" />
</template>
