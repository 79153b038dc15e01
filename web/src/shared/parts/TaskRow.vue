<script setup lang="ts">
import RingButton from '@/shared/ui/RingButton.vue'
import NumberBox from '@/shared/ui/NumberBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import DateBox from '@/shared/ui/DateBox.vue'
import TickBox from '@/shared/ui/TickBox.vue'
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
    <RingButton
      :disabled="!may('helper')"
      :done="isDone"
      :label="isDone ? `${label}: done` : `Check off ${label}`"
      @click="tick"
    />
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
    <ActButton
      v-if="task.state === 'open' && !waits && may('helper')"
      quiet
      class="more"
      :aria-expanded="isOpen"
      :aria-label="`More for ${label}`"
      @click="isOpen = !isOpen"
    >
      ⋯
    </ActButton>
    <div v-if="isOpen" class="open">
      <div v-if="task.kind === 'taste'" class="tastes" role="group" aria-label="How it tastes">
        <ActButton v-for="(word, how) in tastes" :key="how" @click="taste(how)">
          {{ word }}
        </ActButton>
        <NumberBox
          v-model="soak"
          label="Too salty: minutes to soak, then taste again (20 to 60 is usual)"
          :min="5"
          :max="600"
        />
      </div>
      <form @submit.prevent="move">
        <DateBox v-model="when" label="Move it to" kind="datetime-local" />
        <ActButton submit :disabled="!when">Move</ActButton>
        <ActButton @click="drop">Skip it</ActButton>
      </form>
      <TickBox v-model="following" class="small">move what comes after it too</TickBox>
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

.tastes .field {
  width: 72px;
  display: inline-block;
}

.open form .field {
  flex: 1 1 180px;
}
</style>
