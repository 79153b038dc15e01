<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { momentTyped, todayHere } from '@/shared/quantity/when'
import { computed, ref } from 'vue'
import { useSlug } from '@/shared/api/useSlug'
import { usePlan } from '@/shared/api/useBench'
import type { Task } from '@/shared/api/client'
import LoadState from '@/shared/ui/LoadState.vue'
import TaskRow from '@/shared/parts/TaskRow.vue'
import { useTick } from '@/shared/parts/useTick'

/** What is due: late first, today, then tomorrow; and the calendar to export. */
const everything = ref('')
const { data: plan, error, refetch } = usePlan(2, everything)
const kitchen_slug = useSlug()
const endOfToday = +new Date(momentTyped(`${todayHere()}T23:59:59`))
const endOfTomorrow = endOfToday + 864e5
const tasks = computed(() => plan.value?.tasks ?? [])
const late = computed(() => tasks.value.filter((task) => task.is_late))
const today = computed(() =>
  tasks.value.filter(
    (task) => !task.is_late && task.state === 'open' && +new Date(task.due_at) <= endOfToday,
  ),
)
const done = computed(() => tasks.value.filter((task) => task.state === 'done').slice(-4))
const next = computed(() =>
  tasks.value.filter((task) => {
    const due = +new Date(task.due_at)
    return task.state === 'open' && due > endOfToday && due <= endOfTomorrow
  }),
)
const dueLists = computed(() => [
  { name: 'Late', tasks: late.value },
  { name: 'Today', tasks: today.value },
])
const { tell, isWaiting } = useTick()
/** The same thing due for several pieces of a batch: done with one touch. A tasting is asked one by one. */
const sameActs = computed(() => {
  const groups = new Map<string, Task[]>()
  for (const task of [...late.value, ...today.value]) {
    if (task.kind === 'taste' || isWaiting(task)) continue
    const key = `${task.code} ${task.words}`
    groups.set(key, [...(groups.get(key) ?? []), task])
  }
  return [...groups.values()]
    .filter((tasks) => tasks.length > 1)
    .map((tasks) => ({ tasks, label: `All ${tasks.length} done: ${tasks[0]?.words}, ${tasks[0]?.code}` }))
})
const isMore = ref(false)
</script>

<template>
  <section class="todo" aria-label="What is due">
    <div class="top">
      <h2>To do</h2>
      <a class="small" :href="`/api/kitchens/${kitchen_slug}/plan.ics`" download>Add to my calendar (.ics)</a>
    </div>
    <LoadState v-if="!plan" :error="error" what="what is due" @retry="refetch()" />
    <p v-else-if="!late.length && !today.length" class="panel quiet">Nothing is due today.</p>
    <template v-for="{ name, tasks: due } in dueLists" :key="name">
      <ul v-if="due.length" :aria-label="name">
        <TaskRow v-for="task in due" :key="task.uid" :task="task" />
      </ul>
    </template>
    <ActButton
      v-for="same in sameActs"
      :key="same.label"
      small
      @click="same.tasks.forEach((task) => tell(task, { sort: 'done' }))"
    >
      {{ same.label }}
    </ActButton>
    <ul v-if="done.length" aria-label="Done">
      <TaskRow v-for="task in done" :key="task.uid" :task="task" />
    </ul>
    <ActButton v-if="next.length" small :aria-expanded="isMore" @click="isMore = !isMore">
      {{ isMore ? 'Hide tomorrow' : `Tomorrow: ${next.length}` }}
    </ActButton>
    <ul v-if="isMore" aria-label="Tomorrow">
      <TaskRow v-for="task in next" :key="task.uid" :task="task" />
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
