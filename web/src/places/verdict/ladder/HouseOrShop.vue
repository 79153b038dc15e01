<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas, Verdict } from '@/shared/api/client'
import Strip from '@/shared/strip/Strip.vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import { useLinkKeys } from '@/shared/frame/useKeys'
import { ofStage, useUnits, without } from '@/shared/quantity/useUnits'
import BillParts from '@/places/verdict/sheet/BillParts.vue'
import TakeAway from '@/places/verdict/sheet/TakeAway.vue'
import OutlayTable from './OutlayTable.vue'
import PayBack from './PayBack.vue'
import PolicyPanel from './PolicyPanel.vue'
import PriceLadder from './PriceLadder.vue'
import SlabsAtOnce from './SlabsAtOnce.vue'
import { useTrial } from './useTrial'
import WhatIf from './WhatIf.vue'
import WhatMatters from './WhatMatters.vue'

/** House against shop on a basis the cook picks, and what would move it. */
const props = defineProps<{ verdict: Verdict }>()
defineEmits<{ kept: [] }>()
const { like, money, unitWord } = useUnits()
const verdict = computed(() => props.verdict)
const { dials, was, tried, judged, strip, isTried, lost, reset } = useTrial(() => props.verdict.code, verdict)

type Basis = Schemas['BasisOut']
const words: Record<Basis['key'], string> = {
  pound: ofStage(props.verdict.judged.expected?.stage ?? props.verdict.judged.house.stage, unitWord.value),
  portion: 'portion',
  slice: 'slice',
  cooked: like('cooked ounce', 'cooked 100 g'),
}
const key = ref<Basis['key']>('pound')
const bases = computed(() =>
  props.verdict.judged.bases.map((one) => ({
    value: one.key,
    word: words[one.key],
  })),
)
const basis = computed(() => props.verdict.judged.bases.find((one) => one.key === key.value))
const triedBasis = computed(() => tried.value?.bases.find((one) => one.key === key.value) ?? null)

/** What the past year's finished batches saved, as they were recorded. */
const year = computed(() => {
  const { batches, compared, saved } = props.verdict.judged.year
  const shop = props.verdict.judged.shops[0]
  if (!shop || !batches) return null
  const [sum, count] = [saved[0], compared[0] ?? 0]
  if (sum == null) {
    const had = count === 1 ? '1 finished batch' : `${count} finished batches`
    return `Past year: ${had} compared with the ${shop.name}. That is too few to say what a year saves.`
  }
  const verb = sum.startsWith('-') ? 'cost' : 'saved'
  const more = sum.startsWith('-') ? ' more' : ''
  return `Past year: ${count} finished batches ${verb} ${money(without(sum))}${more} compared with the ${shop.name}.`
})
useLinkKeys({ v: 'strip' })
</script>

<template>
  <div class="head">
    <h1>House or shop?</h1>
    <span class="badge">{{ verdict.code }}</span>
    <ChoiceBar v-model="key" label="Compare by" quiet-label :choices="bases" />
    <div class="acts">
      <PolicyPanel v-model:policy="dials.policy" :verdict="verdict" @kept="$emit('kept')" />
      <TakeAway :code="verdict.code" />
    </div>
  </div>
  <div class="place">
    <div class="left">
      <PriceLadder
        v-if="basis"
        :basis="basis"
        :tried="triedBasis"
        :code="verdict.code"
        :is-forecast="verdict.judged.is_forecast"
      />
      <p v-if="year" class="panel year">{{ year }}</p>
    </div>
    <WhatIf
      v-model:dials="dials"
      :verdict="verdict"
      :was="was"
      :judged="judged"
      :is-tried="isTried"
      :lost="lost"
      @reset="reset"
    />
    <div class="right">
      <WhatMatters :verdict="verdict" />
      <SlabsAtOnce :judged="judged" />
    </div>
  </div>
  <section v-if="strip" class="tried" aria-label="The strip with your changes">
    <h2>The strip with your changes</h2>
    <Strip :batch="{ strip, shops: judged.shops }" />
  </section>
  <div class="more">
    <BillParts :bill="judged.bill" />
    <OutlayTable :verdict="verdict" />
    <PayBack :code="verdict.code" :hourly="verdict.hourly" />
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: minmax(0, 452fr) minmax(0, 444fr) minmax(0, 304fr);
  gap: 16px;
  align-items: start;
}

.left,
.right {
  display: grid;
  gap: 16px;
}

.year {
  font-weight: 620;
}

.tried {
  margin-top: 16px;
}

.more {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 16px;
  margin-top: 16px;
  align-items: start;
}

@media (max-width: 1079px) {
  .place {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
