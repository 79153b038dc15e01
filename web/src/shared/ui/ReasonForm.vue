<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import type { Problem } from '@/shared/api/client'
import ProblemNote from './ProblemNote.vue'

/** Why something is taken back: what was recorded stays, beside the reason. */
defineProps<{ word: string; problem: Problem | null }>()
defineEmits<{ done: [] }>()
const reason = defineModel<string>({ required: true })
</script>

<template>
  <form class="lines" @submit.prevent="$emit('done')">
    <TypedInput v-model="reason" label="Why" maxlength="200" />
    <ProblemNote v-if="problem" :problem="problem" />
    <ActButton first submit>{{ word }}</ActButton>
  </form>
</template>
