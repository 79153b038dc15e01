<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import { computed } from 'vue'
import type { Summary } from '@/shared/api/client'
import { useUnits, without } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import { recordWord } from './stepWords'
import { marksText } from './marksText'
import MiniRibbon from './MiniRibbon.vue'

const props = defineProps<{ batch: Summary }>()
const { weightText, otherText, costText, unitWord, money } = useUnits()
const marks = computed(() => marksText(props.batch.pieces))
const saved = computed(() => {
  const amount = props.batch.saved_on_batch
  if (amount == null || !props.batch.is_finished) return null
  return `${money(without(amount))} ${amount.startsWith('-') ? 'more' : 'less'} on the batch than the ${props.batch.shop_name}`
})
</script>

<template>
  <li class="panel row">
    <div class="who">
      <h3>
        <RouterLink :to="{ name: 'strip', params: { code: batch.code } }">{{ batch.name }}</RouterLink>
      </h3>
      <p>
        <span class="badge">{{ batch.code }}</span> <b>{{ marks }}</b>
      </p>
      <p class="quiet small">{{ batch.cut }}, since {{ dayText(batch.started_at) }}</p>
    </div>
    <MiniRibbon :labels="batch.labels" :kept="batch.kept" :next="batch.next?.label ?? null" />
    <div class="now">
      <p v-if="batch.cost" class="price">{{ costText(batch.cost) }}</p>
      <p class="small">a {{ unitWord }}, {{ batch.stage }}{{ batch.is_finished ? '' : ', so far' }}</p>
      <p class="quiet small">{{ weightText(batch.weight) }} · {{ otherText(batch.weight) }}</p>
      <p v-if="saved" class="small">{{ saved }}</p>
    </div>
    <ActLink v-if="!batch.is_finished" :to="{ name: 'log', params: { code: batch.code } }">
      {{ batch.next ? recordWord(batch.next.kind) : 'Record a step' }}
    </ActLink>
    <ActLink v-else :to="{ name: 'strip', params: { code: batch.code } }">See the verdict</ActLink>
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px 18px;
  align-items: center;
}

h3 {
  font-size: 18px;
  line-height: 1.2;
  margin-bottom: 4px;
}

h3 a {
  text-decoration: none;
}

h3 a:hover {
  text-decoration: underline;
}

.now {
  text-align: right;
}

.price {
  font-size: 24px;
  font-weight: 780;
  font-stretch: 108%;
  line-height: 1.1;
  color: var(--rose-deep);
}

.now {
  grid-row: 1;
  grid-column: 2;
}

.row > :last-child {
  align-self: center;
}

@media (max-width: 979px) {
  .row > :nth-child(2),
  .row > :last-child {
    grid-column: 1 / -1;
  }
}

@media (max-width: 560px) {
  .now {
    grid-row: auto;
    grid-column: 1 / -1;
    text-align: left;
  }
}
</style>
