<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** One plate as a bar of its parts, the house's and each shop kind's under each other, on one scale. */
const props = defineProps<{ bars: Schemas['BarOut'][]; parts: Schemas['PlatePartOut'][] }>()
const { money } = useUnits()
const colors = ['#C99A5B', '#F1D9A6', '#6F8F8A', '#8FB8D6', '#D8D3C4']
const most = computed(() => Math.max(0.01, ...props.bars.map((bar) => Number(bar.cost ?? 0))))
/** Meat in its own color, paler where it is the shop's; the rest in turn. */
function colorOf(at: number, isHouse: boolean): string {
  if (props.parts[at]?.sort === 'larder') return isHouse ? '#D9657A' : '#E9B3BD'
  const others = props.parts.slice(0, at).filter((one) => one.sort !== 'larder').length
  return colors[others % colors.length] ?? '#D8D3C4'
}
const width = (cost: string | null): number => (100 * Number(cost ?? 0)) / most.value
</script>

<template>
  <ul class="bars" aria-label="One plate, house and shop">
    <li v-for="(bar, row) in bars" :key="bar.name">
      <b>{{ bar.name }}</b>
      <div class="bar">
        <span
          v-for="(cost, at) in bar.parts"
          :key="at"
          :style="{ width: `${width(cost) * 0.82}%`, background: colorOf(at, row === 0) }"
          :title="`${parts[at]?.name}: ${money(cost)}`"
          ><template v-if="width(cost) > 11">{{ cost }}</template></span
        >
        <strong>{{ money(bar.cost) }}</strong>
      </div>
    </li>
  </ul>
  <ul class="key">
    <li v-for="(one, at) in parts" :key="at">
      <i :style="{ background: colorOf(at, true) }" aria-hidden="true" />
      <span>{{ one.name }}</span>
      <span class="quiet">{{ one.amount }}</span>
      <b>{{ money(one.cost) }}</b>
      <span class="quiet small">{{ one.basis }}</span>
    </li>
  </ul>
</template>

<style scoped>
.bars {
  display: grid;
  gap: 14px;
}

.bars li {
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
}

.bar {
  display: flex;
  align-items: center;
  gap: 2px;
}

.bar span {
  display: grid;
  place-items: center;
  height: 46px;
  overflow: hidden;
  font-size: 14px;
  font-weight: 640;
}

.bar strong {
  margin-left: 8px;
  font-size: 19px;
  font-weight: 780;
}

.key {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 4px 18px;
  margin-top: 14px;
  font-size: 14px;
}

.key li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: baseline;
}

.key i {
  display: inline-block;
  width: 11px;
  height: 11px;
}

@media (max-width: 719px) {
  .bars li {
    grid-template-columns: minmax(0, 1fr);
    gap: 3px;
  }
}
</style>
