<script setup lang="ts">
import { computed } from 'vue'
import type { Batch, Verdict } from '@/shared/api/client'
import { ofStage, useUnits } from '@/shared/quantity/useUnits'
import WhyFigure from '@/shared/why/WhyFigure.vue'

/** The one number, and the stage it is of. */
const props = defineProps<{ batch: Batch; verdict: Verdict | undefined }>()
const { costText, otherCostText, bothText, money, unitWord, percent } = useUnits()
const house = computed(() => props.batch.house)
const stage = computed(() => (house.value.stage === 'bought' ? 'as bought' : house.value.stage))
/** One standard deviation by scale error, where a scale is known. */
const scale = computed(() => {
  const spread = props.verdict?.judged.spread
  return spread?.is_known ? spread.unit_cost : null
})
/** What a finished pound will come to, while it is under way. */
const expected = computed(() => (house.value.is_finished ? null : (props.verdict?.judged.expected ?? null)))
const title = computed(() =>
  house.value.stage === 'bought'
    ? `Price of a ${unitWord.value}, as bought`
    : `Price of a ${ofStage(stage.value, unitWord.value)}${house.value.is_finished ? '' : ', so far'}`,
)
</script>

<template>
  <section class="panel" :aria-label="title">
    <p class="quiet small">{{ title }}</p>
    <template v-if="house.unit_cost">
      <p class="big">
        <WhyFigure figure="cost_per_lb">{{ costText(house.unit_cost) }}</WhyFigure>
      </p>
      <p class="quiet">
        {{ otherCostText(house.unit_cost)
        }}<template v-if="scale">
          ·
          <span class="small">{{
            costText(scale).endsWith('0.00')
              ? 'scale error: under 1 cent'
              : `± ${costText(scale)} from scale error`
          }}</span></template
        >
      </p>
    </template>
    <p v-if="expected" class="small">
      Expected, {{ ofStage(expected.stage, unitWord) }}: <b>{{ costText(expected.price) }}</b>, 8 times out of
      10 between {{ costText(expected.low) }} and {{ costText(expected.high) }}.
    </p>
    <dl>
      <div v-if="house.portion_label">
        <dt>A portion, {{ house.portion_label }}</dt>
        <dd v-if="house.portion">
          <WhyFigure figure="portion">{{ money(house.portion) }}</WhyFigure>
        </dd>
        <dd v-else class="quiet later">{{ house.is_finished ? 'not known' : 'known once sliced' }}</dd>
      </div>
      <div v-if="house.cost_per_slice">
        <dt>One slice ({{ house.slices }} slices in all)</dt>
        <dd>
          <WhyFigure figure="cost_per_slice">{{ money(house.cost_per_slice) }}</WhyFigure>
        </dd>
      </div>
      <div>
        <dt>Kept of what was bought</dt>
        <dd>
          <WhyFigure figure="kept">{{ percent(house.kept_of_bought) }}</WhyFigure>
        </dd>
      </div>
      <div v-if="house.cost_per_cooked">
        <dt>
          A {{ unitWord }} cooked, {{ percent(house.fry_kept) }} left<template v-if="house.fry_spread">
            ± {{ house.fry_spread }}, {{ house.fry_tests }} fryings</template
          >
        </dt>
        <dd>
          <WhyFigure figure="cost_per_cooked_lb">{{ costText(house.cost_per_cooked) }}</WhyFigure>
        </dd>
      </div>
      <div v-if="batch.loss_account !== '0.00'">
        <dt>Thrown away, counted as a loss</dt>
        <dd>{{ money(batch.loss_account) }}</dd>
      </div>
      <div>
        <dt>All {{ bothText(house.weight) }}</dt>
        <dd>
          <WhyFigure figure="cost">{{ money(house.cost) }}</WhyFigure>
        </dd>
      </div>
    </dl>
  </section>
</template>

<style scoped>
.big {
  font-size: 48px;
  font-weight: 800;
  font-stretch: 106%;
  line-height: 1.05;
  letter-spacing: -0.01em;
}

dl {
  border-top: 1px solid var(--edge);
  margin-top: 10px;
  padding-top: 8px;
  display: grid;
  line-height: 1.32;
}

dl div {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}

dd {
  font-weight: 680;
  white-space: nowrap;
}

.later {
  font-weight: 450;
}
</style>
