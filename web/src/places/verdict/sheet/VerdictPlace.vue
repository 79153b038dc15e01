<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { computed, ref, toRef } from 'vue'
import { useBatch, useVerdict } from '@/shared/api/useBatch'
import ForecastNote from '@/shared/outlook/ForecastNote.vue'
import { useForecast } from '@/shared/outlook/useForecast'
import { capital } from '@/shared/quantity/capital'
import { MOST_LISTED } from '@/shared/parts/marksText'
import Strip from '@/shared/strip/Strip.vue'
import BatchHead from '@/shared/ui/BatchHead.vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import { useLinkKeys } from '@/shared/frame/useKeys'
import { provideWhy } from '@/shared/why/why'
import AgainstShop from './AgainstShop.vue'
import BillParts from './BillParts.vue'
import HeadlinePrice from './HeadlinePrice.vue'
import TakeAway from './TakeAway.vue'
import CustomersShare from './CustomersShare.vue'
import WherePacksWent from './WherePacksWent.vue'
import WhoseMeat from './WhoseMeat.vue'
import FindingList from '@/shared/ui/FindingList.vue'

const props = defineProps<{ code: string }>()
const code = toRef(props, 'code')
const { data: batch, error, refetch } = useBatch(code)
const { data: verdict } = useVerdict(code)
provideWhy({ verdict, batch })
const { data: forecast } = useForecast(
  code,
  computed(() => batch.value?.seen),
)
useLinkKeys({ l: 'log', w: 'log', h: 'ladder' })

/** All pieces together, or one alone. */
const ALL = ''
const piece = ref(ALL)
const pieces = computed(() => [
  { value: ALL, word: 'All pieces' },
  ...(batch.value?.pieces ?? []).map((one) => ({ value: one.mark, word: one.mark })),
])
const alone = useKitchenQuery(
  'batch',
  '/batches/{code}/strips/{mark}',
  () => ({ path: { code: props.code, mark: piece.value }, key: [props.code, 'piece', piece.value] }),
  { enabled: () => piece.value !== ALL },
)
const drawn = computed(() => {
  if (!batch.value) return undefined
  if (piece.value === ALL || !alone.data.value) return { ...batch.value, forecast: forecast.value ?? null }
  return { strip: alone.data.value, shops: batch.value.shops }
})
</script>

<template>
  <LoadState v-if="!batch" :error="error" :what="`batch ${code}`" @retry="refetch()" />
  <template v-else>
    <BatchHead :batch="batch">
      <TakeAway :code="code" />
      <ActLink first :to="{ name: 'ladder', params: { code } }">House or shop?</ActLink>
    </BatchHead>
    <div class="verdict">
      <HeadlinePrice class="headline" :batch="batch" :verdict="verdict" />
      <div class="strip">
        <ChoiceBar
          v-if="pieces.length > 2 && pieces.length <= MOST_LISTED + 1"
          v-model="piece"
          class="pieces"
          label="Show"
          quiet-label
          :choices="pieces"
        />
        <SelectBox v-else-if="pieces.length > 2" v-model="piece" class="pieces" label="Show" quiet-label>
          <option v-for="one in pieces" :key="one.value" :value="one.value">{{ one.word }}</option>
        </SelectBox>
        <Strip v-if="drawn" :key="piece" :batch="drawn" :asked="piece === ALL" />
        <p class="keys quiet small">
          ← → move along the steps · W weigh · L log · H house or shop · ? all shortcuts
        </p>
        <div class="below">
          <BillParts v-if="verdict" :bill="verdict.judged.bill" />
          <WhoseMeat :batch="batch" :verdict="verdict" />
          <section v-if="verdict" class="panel" aria-label="What is counted, and cautions">
            <h2>What is counted</h2>
            <p>{{ capital(verdict.policy_words) }}{{ verdict.policy_is_own ? ', for this batch' : '' }}.</p>
            <FindingList class="cautions" :findings="verdict.cautions" label="Cautions" />
          </section>
        </div>
      </div>
      <div class="side">
        <ForecastNote v-if="forecast && !batch.is_finished" :code="code" :forecast="forecast" />
        <AgainstShop :batch="batch" :verdict="verdict" />
        <CustomersShare v-if="verdict?.yours" :yours="verdict.yours" :shops="batch.shops" :code="code" />
        <WherePacksWent v-if="verdict?.stowed" :stowed="verdict.stowed" />
      </div>
    </div>
  </template>
</template>

<style scoped>
.verdict {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 284px;
  grid-template-areas: 'strip headline' 'strip side';
  grid-template-rows: auto 1fr;
  gap: 12px 16px;
}

.headline {
  grid-area: headline;
}

.strip {
  grid-area: strip;
  align-self: start;
  min-width: 0;
}

.pieces {
  margin-bottom: 8px;
}

.side {
  grid-area: side;
  display: grid;
  gap: 12px;
  align-content: start;
}

.keys {
  margin: 8px 0 12px;
}

.below {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 12px 16px;
  align-items: start;
}

.cautions {
  margin-top: 8px;
}

@media (max-width: 979px) {
  .verdict {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: 'headline' 'strip' 'side';
    grid-template-rows: none;
  }

  .keys {
    display: none;
  }

  .below {
    margin-top: 12px;
  }
}
</style>
