<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Judged } from '@/shared/api/client'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import { useUnits } from '@/shared/quantity/useUnits'
import WhyFigure from '@/shared/why/WhyFigure.vue'
import { colourOfPart } from '@/shared/strip/materials'

/** The bill by what it was for, shrink by its step; what came off is given back below. Adds up to the cent. */
const props = defineProps<{ bill: Judged['bill'] }>()
const { money, unit, unitWord } = useUnits()
type By = 'per_lb' | 'per_kg' | 'per_portion' | 'on_batch'
const byWeight = computed<By>(() => (unit.value === 'lb' ? 'per_lb' : 'per_kg'))
const by = ref<By>(byWeight.value)
const ways = computed(() => {
  const all: { value: By; word: string }[] = [
    { value: byWeight.value, word: `a ${unitWord.value}` },
    { value: 'per_portion', word: 'a portion' },
    { value: 'on_batch', word: 'the batch' },
  ]
  return all.filter((way) => props.bill?.[way.value] != null)
})
const parts = computed(() =>
  (props.bill?.parts ?? []).map((part) => ({
    ...part,
    colour: colourOfPart(part.sort, part.label),
    figure: part[by.value] ?? '0.00',
    share: Math.max(0, Number(part.on_batch)),
  })),
)
const whole = computed(() => parts.value.reduce((sum, part) => sum + part.share, 0))
</script>

<template>
  <section class="panel" aria-label="Where the bill went">
    <h2>Where the bill went</h2>
    <p v-if="!bill">Nothing is left to carry the cost.</p>
    <template v-else>
      <div class="bar" aria-hidden="true">
        <i
          v-for="part in parts"
          :key="part.label"
          :style="{ background: part.colour, width: `${whole ? (part.share / whole) * 100 : 0}%` }"
        ></i>
      </div>
      <ChoiceBar v-model="by" label="Figures for" quiet-label :choices="ways" />
      <dl>
        <div v-for="part in parts" :key="part.label">
          <dt><i :style="{ background: part.colour }" aria-hidden="true"></i>{{ part.label }}</dt>
          <dd>
            <WhyFigure :figure="by === byWeight ? `part_${part.sort}_${part.name}` : ''">{{
              money(part.figure)
            }}</WhyFigure>
          </dd>
        </div>
        <div class="all">
          <dt>all</dt>
          <dd>{{ money(bill[by]) }}</dd>
        </div>
      </dl>
    </template>
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  height: 18px;
  margin: 6px 0 8px;
}

.bar i {
  display: block;
}

dl {
  line-height: 1.32;
  margin-top: 8px;
}

dl div {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}

dt i {
  display: inline-block;
  width: 12px;
  height: 12px;
  margin-right: 8px;
  border: 1px solid rgb(0 0 0 / 12%);
}

dd {
  font-weight: 600;
  white-space: nowrap;
}

.all {
  border-top: 1px solid var(--ink);
  margin-top: 3px;
  padding-top: 3px;
  font-weight: 700;
}
</style>
