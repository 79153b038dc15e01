<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, toRef } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { usePlan } from '@/shared/api/useBench'
import { dayText, longDayText, timeText } from '@/shared/quantity/when'
import LabelsPanel from '@/shared/labels/LabelsPanel.vue'
import { useInAddress } from '@/shared/ui/useInAddress'
import LoadState from '@/shared/ui/LoadState.vue'
import TaskRow from '@/shared/parts/TaskRow.vue'
import NoteForm from './NoteForm.vue'
import PhotoForm from './PhotoForm.vue'
import PlanForm from './PlanForm.vue'

/** Everything that happened to a batch, in time order, and what is still to come. */
const props = defineProps<{ code: string }>()
const code = toRef(props, 'code')
const {
  data: diary,
  error,
  refetch,
  put,
} = useKitchenQuery('diary', '/batches/{code}/diary', () => ({ path: { code: code.value } }))
const { data: plan } = usePlan(400, code)
const coming = computed(() => (plan.value?.tasks ?? []).filter((task) => task.state === 'open'))
const mark = useInAddress<string>('piece', '')
/** Leaves by their day, of all pieces or of one. */
const days = computed(() => {
  const found = new Map<string, Schemas['LeafOut'][]>()
  for (const leaf of diary.value?.leaves ?? []) {
    if (mark.value && leaf.marks.length && !leaf.marks.includes(mark.value)) continue
    const day = new Date(leaf.happened_at).toDateString()
    found.set(day, [...(found.get(day) ?? []), leaf])
  }
  return [...found.values()]
})
</script>

<template>
  <LoadState v-if="!diary" :error="error" :what="`the diary of ${code}`" @retry="refetch()" />
  <template v-else>
    <div class="head">
      <h1>{{ diary.name }}</h1>
      <span class="badge">{{ code }}</span>
      <span class="quiet narrow">{{ diary.cut }}, diary</span>
      <div class="acts">
        <LabelsPanel :code="code" />
        <ActLink v-may:helper :to="{ name: 'weigh', params: { code } }">Weigh</ActLink>
      </div>
    </div>
    <div class="book">
      <section class="panel" aria-label="Diary">
        <div v-if="diary.pieces.length > 1" class="marks" role="group" aria-label="Which piece">
          <ActButton small :aria-pressed="mark === ''" @click="mark = ''">all</ActButton>
          <ActButton
            v-for="one in diary.pieces"
            :key="one"
            small
            :aria-pressed="mark === one"
            @click="mark = one"
          >
            {{ one }}
          </ActButton>
        </div>
        <div v-for="leaves in days" :key="leaves[0]!.happened_at" class="day">
          <h2>{{ longDayText(new Date(leaves[0]!.happened_at)) }}</h2>
          <ol>
            <li v-for="(leaf, place) in leaves" :key="place" :class="[leaf.sort, { wrong: leaf.is_wrong }]">
              <span class="at">{{ timeText(leaf.happened_at) }}</span>
              <div>
                <p>
                  <b>{{ leaf.title }}</b>
                  <span v-if="leaf.marks.length" class="marked">{{
                    leaf.marks.slice(0, 8).join(' · ')
                  }}</span>
                  <span class="quiet small"
                    >{{ leaf.by }}<template v-if="leaf.is_wrong">, corrected later</template></span
                  >
                </p>
                <p v-for="line in leaf.lines" :key="line" class="line">{{ line }}</p>
                <a v-if="leaf.photo" :href="leaf.photo.large" target="_blank" rel="noopener">
                  <img
                    :src="leaf.photo.small"
                    :alt="leaf.lines[0] ?? `Photo of ${dayText(leaf.happened_at)}`"
                    loading="lazy"
                  />
                </a>
              </div>
            </li>
          </ol>
        </div>
      </section>
      <div class="side">
        <section class="panel" aria-label="Add a note">
          <NoteForm :code="code" :pieces="diary.pieces" />
        </section>
        <section class="panel" aria-label="Add a photo">
          <PhotoForm :code="code" :pieces="diary.pieces" @kept="put" />
        </section>
        <section aria-label="Still to come">
          <h2>Still to come</h2>
          <p v-if="!coming.length" class="quiet">Nothing is planned.</p>
          <ul>
            <TaskRow v-for="task in coming" :key="task.uid" :task="task" plain />
          </ul>
          <PlanForm :code="code" :pieces="diary.pieces" />
        </section>
      </div>
    </div>
  </template>
</template>

<style scoped>
.book {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(320px, 400px);
  gap: 16px;
  align-items: start;
}

.side,
.side ul,
section {
  display: grid;
  gap: 12px;
}

.side ul {
  gap: 8px;
}

.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

.marks [aria-pressed='true'] {
  background: var(--ink);
  color: #ffffff;
}

.day h2 {
  padding-bottom: 4px;
  border-bottom: 1px solid var(--edge);
}

.day li {
  display: grid;
  grid-template-columns: 54px minmax(0, 1fr);
  gap: 10px;
  padding: 7px 0 7px 10px;
  border-left: 4px solid #cbd2ce;
  margin-top: 6px;
}

.day li.entry {
  border-left-color: #d9657a;
}

.day li.cure {
  border-left-color: #6f8f8a;
}

.day li.note,
.day li.photo {
  border-left-color: #c99a5b;
}

.at {
  color: var(--quiet);
  font-weight: 640;
}

.day li p > .quiet {
  margin-left: 6px;
}

.marked {
  background: #e4e9e6;
  border-radius: 3px;
  padding: 0 8px;
  margin: 0 6px;
  font-weight: 640;
  font-size: 14px;
}

.wrong .line,
.wrong b {
  text-decoration: line-through;
  color: var(--quiet);
}

img {
  display: block;
  max-width: min(280px, 100%);
  margin-top: 6px;
  border: 1px solid var(--edge);
  border-radius: 4px;
}

@media (max-width: 979px) {
  .book {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
