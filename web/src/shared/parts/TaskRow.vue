<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Task } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import {
  dayOf,
  dayText,
  momentText,
  momentTyped,
  timeText,
  todayHere,
  weekMomentText,
} from '@/shared/quantity/when'
import { useTick } from './useTick'

/** One thing to do: ticked off with one touch, or moved, dropped; a tasting says how it tastes. */
const props = defineProps<{ task: Task; plain?: boolean }>()
const { tell, isWaiting } = useTick()
const { may } = useSession()
const isOpen = ref(false)
const when = ref('')
const following = ref(true)
const soak = ref(30)
const waits = computed(() => isWaiting(props.task))
const isDone = computed(() => props.task.state === 'done' || waits.value)
const marks = computed(() => props.task.marks.filter((mark) => mark !== 'lot').join(' · '))
const counted = computed(() => (props.task.of > 1 ? `${props.task.count} of ${props.task.of}` : ''))
const about = computed(() => [props.task.where, counted.value, props.task.text].filter(Boolean).join('; '))
const tastes = { salty: 'too salty', right: 'just right', flat: 'flat' } as const
const due = computed(() => {
  if (props.task.state === 'done')
    return `done ${momentText(props.task.done_at ?? props.task.due_at)}${props.task.by ? ` by ${props.task.by}` : ''}`
  return props.task.is_late
    ? `late: was due ${weekMomentText(props.task.due_at)}`
    : `due ${isToday.value ? timeText(props.task.due_at) : weekMomentText(props.task.due_at)}`
})
const isToday = computed(() => dayOf(props.task.due_at) === todayHere())
const label = computed(() => `${props.task.words}, ${props.task.code} ${marks.value}`)

function tick(): void {
  if (waits.value) return
  if (props.task.kind === 'taste' && props.task.state === 'open') isOpen.value = true
  else tell(props.task, { sort: props.task.state === 'done' ? 'open' : 'done' })
}
function taste(how: keyof typeof tastes): void {
  tell(props.task, { sort: 'done', taste: how, soak_minutes: soak.value })
  isOpen.value = false
}
function move(): void {
  if (!when.value) return
  tell(props.task, {
    sort: 'moved',
    due_at: momentTyped(when.value),
    with_following: following.value,
  })
  isOpen.value = false
}
function drop(): void {
  tell(props.task, { sort: 'dropped' })
  isOpen.value = false
}
</script>

<template>
  <li class="row" :class="{ late: task.is_late && !waits, done: isDone }">
    <button
      type="button"
      class="ring"
      :disabled="!may('helper')"
      :aria-pressed="isDone"
      :aria-label="isDone ? `${label}: done` : `Check off ${label}`"
      @click="tick"
    >
      <span v-if="isDone" aria-hidden="true">✓</span>
    </button>
    <div class="detail">
      <p class="words">
        {{ task.words }}<template v-if="task.taste">: {{ tastes[task.taste] }}</template>
      </p>
      <p>
        <RouterLink v-if="!plain" :to="{ name: 'diary', params: { code: task.code } }"
          >{{ task.name }} {{ task.code }}</RouterLink
        ><template v-if="marks">{{ plain ? '' : ', ' }}piece {{ marks }}</template>
      </p>
      <p class="quiet small">{{ about }}</p>
      <p class="small due">
        <span v-if="task.is_late && !waits" aria-hidden="true">▲</span>
        {{ waits ? 'done here, waiting to be sent' : due }}
      </p>
    </div>
    <button
      v-if="task.state === 'open' && !waits && may('helper')"
      type="button"
      class="more"
      :aria-expanded="isOpen"
      :aria-label="`More for ${label}`"
      @click="isOpen = !isOpen"
    >
      ⋯
    </button>
    <div v-if="isOpen" class="open">
      <div v-if="task.kind === 'taste'" class="tastes" role="group" aria-label="How it tastes">
        <button v-for="(word, how) in tastes" :key="how" type="button" class="act" @click="taste(how)">
          {{ word }}
        </button>
        <label class="small"
          >too salty: soak
          <input
            v-model.number="soak"
            type="number"
            min="5"
            max="600"
            class="box"
            aria-label="Minutes to soak"
          />
          minutes, then taste again (20 to 60 is usual)</label
        >
      </div>
      <form @submit.prevent="move">
        <label class="named">
          <span>Move it to</span>
          <input v-model="when" type="datetime-local" class="box" />
        </label>
        <button type="submit" class="act" :disabled="!when">Move</button>
        <button type="button" class="act" @click="drop">Skip it</button>
      </form>
      <label class="tick small"
        ><input v-model="following" type="checkbox" /> move what comes after it too</label
      >
      <p class="quiet small">Planned for {{ dayText(task.due_at) }}.</p>
    </div>
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 2px 14px;
  align-items: center;
  padding: 10px 14px;
  background: var(--panel);
  border: 1px solid var(--edge);
  border-radius: 4px;
}

.row.late {
  border-left: 6px solid var(--care);
}

.row.done .words {
  color: var(--good);
}

.done .ring {
  border-color: var(--good);
}

.words {
  font-size: 17px;
  font-weight: 700;
}

.late .due {
  color: var(--care-ink);
  font-weight: 640;
}

.detail a {
  color: inherit;
}

.more {
  min-width: 44px;
  min-height: 44px;
  border: 0;
  background: none;
  font: inherit;
  font-size: 22px;
  cursor: pointer;
}

.open {
  grid-column: 1 / -1;
  display: grid;
  gap: 8px;
  padding-top: 8px;
  border-top: 1px solid var(--edge);
}

.open form,
.tastes {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}

.tastes .box {
  width: 72px;
  display: inline-block;
}

.open form .named {
  flex: 1 1 180px;
}
</style>
