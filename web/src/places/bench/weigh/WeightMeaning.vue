<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import UsualBand from './UsualBand.vue'

/** What the weight on the scale means, at once. */
const props = defineProps<{ meaning: Schemas['MeaningOut']; kind: string }>()
const { weightText, costText, unitWord, percent } = useUnits()
const apart = computed(() => {
  const { apart, gain } = props.meaning
  if (!apart) return '–'
  return Number(apart.kg) ? `${gain ? '+' : '−'}${weightText(apart)}` : 'no change'
})
const problem = computed(() => props.meaning.problems?.[0]?.message ?? '')
</script>

<template>
  <div class="meaning">
    <dl v-if="meaning.kept">
      <div>
        <dt>{{ meaning.before_label }}</dt>
        <dd>{{ apart }}</dd>
      </div>
      <div>
        <dt>kept of this step</dt>
        <dd>{{ percent(meaning.kept) }}</dd>
      </div>
      <div v-if="meaning.cost">
        <dt>a {{ unitWord }} now costs</dt>
        <dd class="cost">{{ costText(meaning.cost) }}</dd>
      </div>
    </dl>
    <UsualBand v-if="meaning.usual && meaning.kept" :usual="meaning.usual" :kept="meaning.kept" />
    <p v-if="meaning.asks" class="asks" role="alert"><span aria-hidden="true">▲</span> {{ meaning.asks }}</p>
    <p v-if="problem" class="asks" role="alert"><span aria-hidden="true">▲</span> {{ problem }}</p>
  </div>
</template>

<style scoped>
.meaning {
  display: grid;
  gap: 14px;
}

dl {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 56px;
}

dt {
  color: #b9c3bf;
  font-size: 19px;
}

dd {
  font-size: 38px;
  font-weight: 720;
  line-height: 1.15;
}

.cost {
  color: #f08aa0;
}

.asks {
  padding: 10px 14px;
  border-left: 6px solid #e5a94c;
  background: #3a2c0f;
  color: #ffdf9f;
  font-size: 18px;
  font-weight: 600;
}

@media (max-width: 719px) {
  dl {
    justify-content: space-between;
    gap: 6px 14px;
  }

  dt {
    font-size: 14px;
    font-stretch: 86%;
  }

  dd {
    font-size: 24px;
  }

  .asks {
    font-size: 15px;
  }
}
</style>
