<script setup lang="ts">
import { computed } from 'vue'
import type { Pack, Stack } from '@/places/slice/useLarder'
import { useOutbox } from '@/shared/outbox/outbox'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'

/** Packs of one product as they lie on each other, the oldest on top; each opens its pack. */
const props = defineProps<{ stack: Stack }>()
const { weightText, money } = useUnits()
const { letters } = useOutbox()
const waits = (pack: Pack): boolean =>
  letters.value.some((one) => one.code === pack.code && one.mark === pack.mark)
const left = (pack: Pack): string =>
  pack.left_slices
    ? `${pack.left_slices} ${pack.left_slices === 1 ? 'slice' : 'slices'}`
    : weightText(pack.left)
const look = (pack: Pack): string => (pack.is_past ? 'past' : pack.state)
const says = (pack: Pack): string => {
  const day = dayText(pack.keep_until ?? '')
  const words = [pack.is_past ? `past its use-by date, ${day}` : pack.state]
  if (pack.is_past_best) words.push(`best before ${day}`)
  if (pack.is_raw) words.push('raw, cook before eating')
  return words.join(', ')
}
const under = computed(() => {
  const { count, weight, lasts, use_by } = props.stack
  const lines = [`${count} ${count === 1 ? 'pack' : 'packs'}, ${weightText(weight)}`]
  if (lasts !== null)
    lines.push(lasts ? `lasts ${lasts} ${lasts === 1 ? 'day' : 'days'}` : 'lasts less than a day')
  const isPast = props.stack.packs.some((pack) => pack.is_past)
  const isBest = props.stack.packs.some((pack) => pack.is_past_best)
  const word = isPast ? 'past its use-by date,' : isBest ? 'best before' : 'use by'
  if (use_by) lines.push(`${word} ${dayText(use_by)}`)
  return lines
})
const isRaw = computed(() => props.stack.packs.some((pack) => pack.is_raw))
</script>

<template>
  <div class="stack">
    <h3>
      {{ stack.product }}<span v-if="stack.owner" class="owner">{{ stack.owner }}’s</span>
    </h3>
    <ul :aria-label="stack.product">
      <li v-for="pack in stack.packs" :key="pack.code + pack.mark">
        <RouterLink
          :class="look(pack)"
          :to="{ name: 'pack', params: { code: pack.code, mark: pack.mark } }"
          :aria-label="`${pack.code} ${pack.mark}, ${left(pack)}, ${says(pack)}`"
        >
          <b>{{ left(pack) }}</b>
          <span>{{
            waits(pack) ? 'waiting to be sent' : `${pack.code} ${pack.mark} · ${dayText(pack.packed_at)}`
          }}</span>
        </RouterLink>
      </li>
      <li v-if="stack.more" class="quiet small">and {{ stack.more }} more</li>
    </ul>
    <p v-for="line in under" :key="line">{{ line }}</p>
    <p class="quiet small">{{ money(stack.cost) }} tied up</p>
    <p v-if="isRaw" class="small raw">▲ raw: cook before eating</p>
  </div>
</template>

<style scoped>
.owner {
  display: block;
  font-size: 13px;
  font-weight: 600;
  color: var(--good);
}

h3 {
  font-size: 15px;
  margin: 0 0 5px;
  overflow-wrap: anywhere;
}

ul {
  display: grid;
  gap: 4px;
  margin-bottom: 6px;
}

a {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0 8px;
  min-height: 44px;
  padding: 2px 9px;
  border-radius: 2px;
  font-size: 13px;
  text-decoration: none;
  color: var(--ink);
}

.frozen {
  background: #8fb8d6;
}

.thawed {
  background: #e9b3bd;
}

.chilled {
  background: #e5899a;
}

.open {
  background: var(--rose);
  color: #ffffff;
}

.past {
  background: #7f5413;
  color: #ffffff;
}

.raw {
  color: var(--care-ink);
  font-weight: 640;
}
</style>
