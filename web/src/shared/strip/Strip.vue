<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, toRef } from 'vue'
import { chanceText } from '@/shared/quantity/chance'
import { useUnits } from '@/shared/quantity/useUnits'
import ColumnDetail from './ColumnDetail.vue'
import StripAcross from './StripAcross.vue'
import StripDown from './StripDown.vue'
import type { Drawn } from './useStrip'

/** The batch's one picture: ribbon of weight, climb of price, ledger, over the same steps. */
const props = defineProps<{
  batch: Drawn
  /** Its figures can be asked where they come from: it is the batch as recorded, all pieces. */
  asked?: boolean
}>()
const batch = toRef(props, 'batch')
const frame = ref<HTMLElement | null>(null)
const { width } = useElementSize(frame)
const { costText, sign, unitWord } = useUnits()
const expected = computed(() => batch.value.forecast)
const chosen = ref<number | null>(null)
const turned = computed(() => width.value > 0 && width.value < 600)
const column = computed(() => batch.value.strip.columns[chosen.value ?? batch.value.strip.columns.length - 1])
</script>

<template>
  <section
    ref="frame"
    class="strip"
    aria-label="The strip: weight left, price of a pound, and the ledger by step"
  >
    <StripDown v-if="turned" v-model:chosen="chosen" :batch="batch" :width="width" />
    <StripAcross v-else-if="width > 0" v-model:chosen="chosen" :batch="batch" :width="width" />
    <p class="units quiet small">
      Weights in {{ unitWord }}s{{ turned ? '' : ', the other unit below' }}; prices in {{ sign.trim() }} a
      {{ unitWord }}.
    </p>
    <p v-if="expected?.price" class="expected" aria-live="polite">
      <b>To come:</b> a sliced {{ unitWord }} at {{ costText(expected.price.low) }} to
      {{ costText(expected.price.high) }}, most likely {{ costText(expected.price.middle)
      }}<template v-if="expected.chance !== null"
        >; it {{ chanceText(expected.chance, `the ${expected.shop_name}`) }}</template
      >.
    </p>
    <ColumnDetail
      v-if="column"
      :column="column"
      :place="asked ? (chosen ?? batch.strip.columns.length - 1) : null"
      :sources="column.kind === 'bought' ? (batch.sources ?? []) : []"
    />
  </section>
</template>

<style scoped>
.strip {
  background: var(--panel);
  border: 1px solid var(--edge);
  border-radius: 4px;
  overflow: hidden;
}

.units {
  padding: 6px 14px;
  border-top: 1px solid var(--edge);
}

.expected {
  border-top: 1px solid var(--edge);
  padding: 8px 14px 0;
  font-size: 14px;
}
</style>
