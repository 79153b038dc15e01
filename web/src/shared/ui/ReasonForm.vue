<script setup lang="ts">
import type { Problem } from '@/shared/api/client'
import ProblemNote from './ProblemNote.vue'

/** Why something is taken back: what was recorded stays, beside the reason. */
defineProps<{ word: string; problem: Problem | null }>()
defineEmits<{ done: [] }>()
const reason = defineModel<string>({ required: true })
</script>

<template>
  <form class="lines" @submit.prevent="$emit('done')">
    <label class="named"><span>Why</span><input v-model="reason" class="box" maxlength="200" /></label>
    <ProblemNote v-if="problem" :problem="problem" />
    <button type="submit" class="act first">{{ word }}</button>
  </form>
</template>
