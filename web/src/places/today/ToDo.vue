<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSlug } from '@/shared/api/useBatch'
import { usePlan } from '@/shared/api/useBench'
import type { Act } from '@/shared/api/client'
import ActRow from '@/shared/parts/ActRow.vue'
import { useTick } from '@/shared/parts/useTick'

/** What is due: late first, today, then tomorrow; and the calendar to export. */
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
const dueLists = computed(() => [
  { name: 'Late', acts: late.value },
  { name: 'Today', acts: today.value },
])
const { tell, isWaiting } = useTick()
/** The same thing due for several pieces of a batch: done with one touch. A tasting is asked one by one. */
const sameActs = computed(() => {
  const groups = new Map<string, Act[]>()
  for (const act of [...late.value, ...today.value]) {
    if (act.kind === 'taste' || isWaiting(act)) continue
    const key = `${act.code} ${act.words}`
    groups.set(key, [...(groups.get(key) ?? []), act])
  }
  return [...groups.values()]
    .filter((acts) => acts.length > 1)
    .map((acts) => ({ acts, label: `All ${acts.length} done: ${acts[0]?.words}, ${acts[0]?.code}` }))
})
const isMore = ref(false)
</script>

<template>
  <section class="todo" aria-label="What is due">
    <div class="top">
      <h2>To do</h2>
      <a class="small" :href="`/api/kitchens/${kitchen_slug}/plan.ics`" download>Add to my calendar (.ics)</a>
    </div>
    <p v-if="!plan" class="panel quiet">{{ error ? error.problem.detail : 'Loading what is due …' }}</p>
    <p v-else-if="!late.length && !today.length" class="panel quiet">Nothing is due today.</p>
    <template v-for="{ name, acts: due } in dueLists" :key="name">
      <ul v-if="due.length" :aria-label="name">
        <ActRow v-for="act in due" :key="act.uid" :act="act" />
      </ul>
    </template>
    <button
      v-for="same in sameActs"
      :key="same.label"
      type="button"
      class="act small"
      @click="same.acts.forEach((act) => tell(act, { sort: 'done' }))"
    >
      {{ same.label }}
    </button>
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
