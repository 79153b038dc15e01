<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSlug } from '@/shared/api/useBatch'
import { usePlan } from '@/shared/api/useBench'
import ActRow from './ActRow.vue'

/** What is due: late first, today, then tomorrow; and the calendar to take along. */
const everything = ref('')
const { data: plan, error } = usePlan(2, everything)
const kitchen_slug = useSlug()
const endOfToday = new Date().setHours(23, 59, 59, 999)
const endOfTomorrow = endOfToday + 864e5
const acts = computed(() => plan.value?.acts ?? [])
const late = computed(() => acts.value.filter((act) => act.is_late))
const today = computed(() =>
  acts.value.filter((act) => !act.is_late && act.state === 'open' && +new Date(act.due_at) <= endOfToday),
)
const done = computed(() => acts.value.filter((act) => act.state === 'done').slice(-4))
const next = computed(() =>
  acts.value.filter((act) => {
    const due = +new Date(act.due_at)
    return act.state === 'open' && due > endOfToday && due <= endOfTomorrow
  }),
)
const isMore = ref(false)
</script>

<template>
  <section class="todo" aria-label="What is due">
    <div class="top">
      <h2>To do</h2>
      <a class="small" :href="`/api/kitchens/${kitchen_slug}/plan.ics`" download
        >Add to my calendar (.ics)</a
      >
    </div>
    <p v-if="!plan" class="panel quiet">{{ error ? error.problem.detail : 'Loading what is due …' }}</p>
    <p v-else-if="!late.length && !today.length" class="panel quiet">Nothing is due today.</p>
    <ul v-if="late.length" aria-label="Late">
      <ActRow v-for="act in late" :key="act.uid" :act="act" />
    </ul>
    <ul v-if="today.length" aria-label="Today">
      <ActRow v-for="act in today" :key="act.uid" :act="act" />
    </ul>
    <ul v-if="done.length" aria-label="Done">
      <ActRow v-for="act in done" :key="act.uid" :act="act" />
    </ul>
    <button
      v-if="next.length"
      type="button"
      class="act small"
      :aria-expanded="isMore"
      @click="isMore = !isMore"
    >
      {{ isMore ? 'Hide tomorrow' : `Tomorrow: ${next.length}` }}
    </button>
    <ul v-if="isMore" aria-label="Tomorrow">
      <ActRow v-for="act in next" :key="act.uid" :act="act" />
    </ul>
  </section>
</template>

<style scoped>
.todo,
ul {
  display: grid;
  gap: 8px;
  align-content: start;
}

.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 4px 12px;
}

.top a {
  color: inherit;
  padding: 6px 0;
}
</style>
