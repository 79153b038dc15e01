<script setup lang="ts">
import { computed } from 'vue'
import type { Batch } from '@/shared/api/client'
import { MOST_LISTED } from '@/shared/parts/marksText'
import CourseLine from './CourseLine.vue'
import FindingList from './FindingList.vue'

const props = defineProps<{ batch: Batch }>()
const marks = computed(() => props.batch.pieces.map((piece) => piece.mark).filter((mark) => mark !== 'lot'))
</script>

<template>
  <div class="head">
    <h1>{{ batch.name }}</h1>
    <span class="badge">{{ batch.code }}</span>
    <RouterLink
      v-if="marks.length > MOST_LISTED"
      class="marks"
      :to="{ name: 'pieces-table', params: { code: batch.code } }"
      >{{ marks.length }} pieces</RouterLink
    >
    <span v-else-if="marks.length" class="marks">
      {{ marks.length === 1 ? 'piece' : 'pieces' }}
      <template v-for="(mark, place) in marks" :key="mark"
        ><template v-if="place"> · </template
        ><RouterLink :to="{ name: 'piece', params: { code: batch.code, mark } }">{{
          mark
        }}</RouterLink></template
      ><template v-if="marks.length > 1">
        ·
        <RouterLink :to="{ name: 'pieces-table', params: { code: batch.code } }">table</RouterLink></template
      >
    </span>
    <span class="quiet narrow">{{ batch.cut }}</span>
    <CourseLine :code="batch.code" />
    <div class="acts"><slot /></div>
  </div>
  <FindingList class="warnings" :findings="batch.warnings" label="Check again" />
</template>

<style scoped>
.marks {
  background: var(--panel);
  border: 1px solid var(--edge);
  border-radius: 3px;
  padding: 2px 10px;
  font-weight: 600;
  font-size: 14px;
  font-stretch: 88%;
}

.warnings {
  margin-bottom: 12px;
}
</style>
