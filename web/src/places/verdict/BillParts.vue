<script setup lang="ts">
import { computed } from 'vue'
import type { Batch } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import { groupOf } from '@/shared/strip/materials'

/** The bill by what it was for; worth back stands below it. */
const props = defineProps<{ batch: Batch }>()
const { money } = useUnits()
const parts = computed(() =>
  props.batch.house.groups.map((part) => ({
    ...part,
    ...groupOf(part.group),
    share: Math.max(0, Number(part.money)),
  })),
)
const whole = computed(() => parts.value.reduce((sum, part) => sum + part.share, 0))
</script>

<template>
  <section class="panel" aria-label="Where the bill went">
    <p class="quiet small">Where the bill went, on the batch</p>
    <div class="bar" aria-hidden="true">
      <i
        v-for="part in parts"
        :key="part.group"
        :style="{ background: part.colour, width: `${whole ? (part.share / whole) * 100 : 0}%` }"
      ></i>
    </div>
    <dl>
      <div v-for="part in parts" :key="part.group">
        <dt><i :style="{ background: part.colour }" aria-hidden="true"></i>{{ part.word }}</dt>
        <dd>{{ money(part.money) }}</dd>
      </div>
    </dl>
    <p v-if="batch.labour_rate" class="quiet small">
      Work counted at {{ money(batch.labour_rate) }} an hour.
    </p>
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
}

dl div {
  display: flex;
  justify-content: space-between;
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
}
</style>
