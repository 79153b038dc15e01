<script setup lang="ts">
import { computed } from 'vue'
import { useLarder } from '@/shared/api/useLarder'
import { dayText } from '@/shared/quantity/when'

/** What the larder asks for today: thaw tonight, use by, runs out. Nothing to say, nothing shown. */
const { data: larder } = useLarder()
const running = computed(() => (larder.value?.runs_out ?? []).filter((one) => one.is_soon))
const thaw = computed(() => {
  const counts = new Map<string, number>()
  for (const one of larder.value?.thaw ?? []) counts.set(one.product, (counts.get(one.product) ?? 0) + 1)
  return [...counts].map(([product, count]) => `${count} ${product}`).join(', ')
})
const hasNews = computed(() => thaw.value || running.value.length || larder.value?.soon.length)
</script>

<template>
  <section v-if="larder && hasNews" class="panel" aria-label="Larder">
    <h2><RouterLink :to="{ name: 'slice' }">Larder</RouterLink></h2>
    <p v-if="thaw">
      Thaw tonight: <b>{{ thaw }}</b>
    </p>
    <ul v-if="larder.soon.length">
      <li v-for="one in larder.soon.slice(0, 4)" :key="one.code + one.mark">
        <RouterLink :to="{ name: 'pack', params: { code: one.code, mark: one.mark } }"
          >{{ one.code }} {{ one.mark }}</RouterLink
        >
        {{ one.product }}:
        <b :class="{ dear: one.is_past }"
          >{{ one.is_past ? 'past its use-by date,' : one.is_past_best ? 'best before' : 'use by' }}
          {{ dayText(one.keep_until!) }}</b
        >
      </li>
      <li v-if="larder.soon.length > 4" class="quiet">and {{ larder.soon.length - 4 }} more</li>
    </ul>
    <p v-for="one in running" :key="one.product">
      {{ one.product }} runs out on <b class="dear">{{ dayText(one.day) }}</b>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
  margin-top: 16px;
}
</style>
