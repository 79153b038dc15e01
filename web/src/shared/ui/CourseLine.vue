<script setup lang="ts">
import { computed, toRef } from 'vue'
import { usePieces } from '@/shared/api/useBench'

/** What the pieces of a batch are to become, and which have to be cooked before they are eaten. */
const props = defineProps<{ code: string; /** Of one piece alone. */ mark?: string }>()
const { data } = usePieces(toRef(props, 'code'))
const pieces = computed(() =>
  (data.value?.pieces ?? []).filter((piece) => props.mark === undefined || piece.mark === props.mark),
)
const becomes = computed(() => {
  const groups = new Map<string, string[]>()
  for (const piece of pieces.value) {
    const label = piece.course_label || 'not said'
    groups.set(label, [...(groups.get(label) ?? []), piece.mark])
  }
  const many = groups.size > 1
  return [...groups].map(([label, marks]) => (many ? `${marks.join(', ')} ${label}` : label)).join(' · ')
})
const raw = computed(() => pieces.value.filter((piece) => piece.is_raw).map((piece) => piece.mark))
const rawText = computed(() => {
  const all = raw.value.length === pieces.value.length
  return `${all ? '' : `${raw.value.join(', ')}: `}raw, cook before eating`
})
</script>

<template>
  <span v-if="becomes" class="quiet narrow">becomes: {{ becomes }}</span>
  <span v-if="raw.length" class="raw" role="note">{{ rawText }}</span>
</template>

<style scoped>
.raw {
  border: 2px solid var(--care);
  background: var(--care-ground);
  border-radius: 3px;
  padding: 1px 8px;
  font-weight: 640;
  font-size: 14px;
}
</style>
