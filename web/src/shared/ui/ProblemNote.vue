<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed } from 'vue'
import type { Problem } from '@/shared/api/client'

/** `fields`: list what is wrong with which field too, in a form whose fields do not say it themselves. */
const props = defineProps<{ problem: Problem; retryWord?: string; fields?: boolean }>()
defineEmits<{ retry: [] }>()
/** One alone is said already. */
const faults = computed(() =>
  props.fields ? props.problem.fields.filter((one) => one.message !== props.problem.detail) : [],
)
</script>

<template>
  <div class="note" role="alert">
    <p>
      <strong>{{ problem.title }}.</strong> {{ problem.detail }}
    </p>
    <ul v-if="problem.changes?.length">
      <li v-for="change in problem.changes" :key="change">{{ change }}</li>
    </ul>
    <ul v-if="faults.length">
      <li v-for="one in faults" :key="one.path">▲ {{ one.message }}</li>
    </ul>
    <ActButton v-if="retryWord" small @click="$emit('retry')">{{ retryWord }}</ActButton>
  </div>
</template>

<style scoped>
.note {
  display: grid;
  gap: 8px;
  justify-items: start;
  border: 1px solid var(--edge);
  border-left: 6px solid var(--care);
  background: var(--care-ground);
  border-radius: 4px;
  padding: 12px 14px;
}

li {
  padding-left: 12px;
  border-left: 2px solid var(--edge);
}
</style>
