<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import type { PieceFacts } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import type { Letter } from '@/shared/outbox/outbox'

type Row = PieceFacts & { letter: Letter | undefined; done: boolean }
/** The pieces of the step: which one lies on the scale, which were weighed, which only wait to be sent. */
const props = defineProps<{ rows: Row[]; current: string; before: string }>()
defineEmits<{ choose: [mark: string] }>()
const { weightText } = useUnits()
/** More than this scroll by themselves, so that the scale stays in sight. */
const MANY = 5
const list = ref<HTMLElement>()
/** The piece on the scale is in sight, however many there are. */
watch(
  () => [props.current, list.value],
  async () => {
    await nextTick()
    const here = list.value?.querySelector<HTMLElement>('.here')
    if (!here || !list.value) return
    list.value.scrollTop = here.offsetTop - list.value.offsetTop - list.value.clientHeight / 3
    list.value.scrollLeft = here.offsetLeft - list.value.offsetLeft - list.value.clientWidth / 3
  },
  { immediate: true, flush: 'post' },
)
</script>

<template>
  <ul ref="list" class="cards" :class="{ many: rows.length > MANY }" aria-label="Pieces of this step">
    <li v-for="row in rows" :key="row.mark">
      <button
        type="button"
        :class="{ here: row.mark === current }"
        :aria-pressed="row.mark === current"
        :aria-label="`Piece ${row.mark}`"
        @click="$emit('choose', row.mark)"
      >
        <span class="mark">{{ row.mark === 'lot' ? 'whole' : row.mark }}</span>
        <span class="weight">{{
          row.letter ? row.letter.words.split(' for ')[0] : weightText(row.weight)
        }}</span>
        <span class="where">{{ row.place?.text ?? '' }}</span>
        <span class="state" :class="{ wait: row.letter }">
          <template v-if="row.letter">waiting to be sent</template>
          <template v-else-if="row.done"><span aria-hidden="true">✓</span> weighed</template>
          <template v-else>{{ before }}</template>
        </span>
      </button>
    </li>
  </ul>
</template>

<style scoped>
.cards {
  display: grid;
  gap: 12px;
}

button {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 10px;
  width: 100%;
  min-height: 84px;
  padding: 10px 16px;
  border: 2px solid #3a4447;
  border-radius: 5px;
  background: #1d2528;
  color: #eef2ef;
  font: inherit;
  text-align: left;
  align-items: center;
  cursor: pointer;
}

button.here {
  border-color: #e0607b;
  background: #2c2428;
}

.mark {
  font-size: 34px;
  font-weight: 780;
  line-height: 1;
  overflow-wrap: anywhere;
}

.weight {
  font-size: 21px;
  font-weight: 680;
  text-align: right;
  white-space: nowrap;
}

.where,
.state {
  font-size: 14px;
  color: #a9b4b0;
  font-stretch: 88%;
}

.state {
  text-align: right;
}

.state.wait {
  color: #e5a94c;
}

@media (min-width: 720px) {
  .cards.many {
    max-height: calc(100dvh - 340px);
    min-height: 200px;
    overflow-y: auto;
    padding: 3px;
  }
}

@media (max-width: 719px) {
  .cards {
    grid-auto-flow: column;
    grid-auto-columns: minmax(112px, 1fr);
    overflow-x: auto;
    gap: 8px;
  }

  button {
    min-height: 70px;
    padding: 8px 12px;
    grid-template-columns: minmax(0, 1fr);
  }

  .mark {
    font-size: 24px;
  }

  .weight {
    font-size: 15px;
    text-align: left;
  }

  .where {
    display: none;
  }

  .state {
    text-align: left;
    font-size: 13px;
  }
}
</style>
