<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed, ref } from 'vue'
import { chanceText } from '@/shared/quantity/chance'
import { useUnits } from '@/shared/quantity/useUnits'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import type { CaseScale } from './caseScale'
import { formText, type Offer, titleText } from './offerDraft'
import OfferDetail from './OfferDetail.vue'
import OfferDrawing from './OfferDrawing.vue'
import { takeText, useTake } from './useTake'
import type { Case, Checked, CheckedOffer } from './useCase'

/** One offer: tag, the way to the sliced price, and the word for it. */
const props = defineProps<{
  offer: CheckedOffer
  typed: Offer
  asked: Case
  checked: Checked
  scale: CaseScale
  width: number
  shops: { name: string; price: number }[]
}>()
const emit = defineEmits<{ change: []; drop: []; answer: [isPack: boolean] }>()
const { costText, cost, money, unitWord, percent } = useUnits()
const open = ref(false)
const { state, problem, retry, takeHome } = useTake(() => props.asked, props.offer.id)

/** One touch; only what the tag did not tell, its weight, has to be asked for. */
function takeNow(): void {
  if (props.offer.packs_wanted === null) open.value = true
  else takeHome(props.offer.packs_wanted, '')
}
const words = { buy: 'buy', walk_past: 'walk past', too_close: 'too close to call' }
/** What can turn the verdict takes its place: a cut that had better not be cured is no "buy", however cheap. */
const word = computed(() => {
  if (props.offer.warning) return 'better not cured'
  return props.offer.verdict ? words[props.offer.verdict] : 'no shop price to compare'
})
const worth = computed(() => {
  const up = props.offer.worth_up_to
  if (!up) return null
  return cost(up).startsWith('-') || Number(cost(up)) === 0
    ? 'not worth it at any price'
    : `worth up to ${costText(up)}`
})
const isPackQuestion = computed(() => props.offer.question_is === 'is_pack')
</script>

<template>
  <li class="row" :class="{ open }">
    <div class="who">
      <h2>{{ titleText(typed) }}</h2>
      <p class="quiet small">{{ formText(typed) }}</p>
      <p v-if="offer.meat" class="water small">
        paying for {{ percent(typed.solution) }} water: {{ costText(offer.meat) }} meat
      </p>
    </div>
    <p class="tag">
      <b>{{ costText(offer.tag) }}</b><span class="quiet small">a {{ unitWord }}, tag</span>
    </p>
    <div class="drawing">
      <OfferDrawing
        v-if="width > 0 && !offer.question"
        :scale="scale"
        :width="width"
        :tag="Number(cost(offer.tag))"
        :middle="Number(cost(offer.sliced.middle))"
        :low="Number(cost(offer.sliced.low))"
        :high="Number(cost(offer.sliced.high))"
        :text="costText(offer.sliced.middle)"
        :shops="shops"
        :against="checked.against"
      />
      <span class="unseen">
        expected {{ costText(offer.sliced.middle) }} a sliced {{ unitWord }}, 8 times out of 10 between
        {{ costText(offer.sliced.low) }} and {{ costText(offer.sliced.high) }}
      </span>
    </div>
    <p v-if="offer.question" class="word too_close">is that right?</p>
    <div v-else class="verdict">
      <p class="word" :class="offer.warning ? 'too_close' : (offer.verdict ?? '')">{{ word }}</p>
      <p v-if="offer.warning" class="care small"><span aria-hidden="true">▲</span> {{ offer.warning }}</p>
      <p v-if="worth" class="small">{{ worth }}</p>
      <p v-if="offer.chance !== null" class="quiet small">
        {{ chanceText(offer.chance, checked.against || 'the shop') }}
      </p>
      <p v-if="offer.hour" class="quiet small">an hour of work earns {{ money(offer.hour) }}</p>
    </div>
    <div class="acts">
      <ActButton
        v-if="!offer.question"
        small
        :class="{ first: offer.verdict === 'buy' && !offer.warning }"
        :disabled="state === 'saving'"
        @click="takeNow"
      >
        {{ takeText(offer.packs_wanted) }}<span class="unseen"> of {{ titleText(typed) }}</span>
      </ActButton>
      <ActButton
        class="more"
        small
        :aria-expanded="open"
        :aria-label="`${open ? 'Less' : 'More'} on ${titleText(typed)}`"
        @click="open = !open"
      >
        <template v-if="offer.doubts.length && !open"
          ><span aria-hidden="true">▲</span>&nbsp;{{ offer.doubts.length }}
          {{ offer.doubts.length === 1 ? 'note' : 'notes' }}</template
        ><template v-else>{{ open ? 'Less' : 'More' }}</template>
      </ActButton>
    </div>
    <ProblemNote
      v-if="problem"
      class="whole"
      :problem="problem"
      :retry-word="state === 'failed' ? 'Try again' : ''"
      @retry="retry"
    />
    <div v-if="offer.question" class="question" role="group" aria-label="Is the price right?">
      <p>{{ offer.question }}</p>
      <ActButton small @click="emit('answer', isPackQuestion)">
        {{ isPackQuestion ? 'It is for the pack' : `It is for a ${unitWord}` }}
      </ActButton>
      <ActButton small @click="emit('answer', !isPackQuestion)"> The price is right </ActButton>
    </div>
    <OfferDetail
      v-if="open"
      :offer="offer"
      :typed="typed"
      :asked="asked"
      :checked="checked"
      @change="emit('change')"
      @drop="emit('drop')"
    />
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 214px 96px minmax(0, 1fr) 190px 118px;
  gap: 4px 12px;
  align-items: center;
  padding: 10px 16px;
  border-top: 1px solid #dde2df;
}

h2 {
  font-size: 19px;
  line-height: 1.15;
  overflow-wrap: anywhere;
}

.water {
  color: var(--care-ink);
  font-weight: 650;
}

.tag {
  display: grid;
  text-align: right;
}

.tag b {
  font-size: 24px;
  font-weight: 780;
  font-stretch: 106%;
  line-height: 1.1;
}

.word {
  font-size: 19px;
  font-weight: 740;
  color: var(--quiet);
  line-height: 1.2;
}

.word.buy {
  color: var(--good);
}

.word.too_close {
  color: var(--care-ink);
}

.acts {
  display: grid;
  gap: 6px;
}

.acts .act {
  padding: 0 8px;
}

.whole {
  grid-column: 1 / -1;
}

.question {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  border-left: 6px solid var(--care);
  background: var(--care-ground);
  padding: 8px 12px;
}

.question p {
  flex: 1 1 260px;
}

@media (max-width: 979px) {
  .row {
    grid-template-columns: minmax(0, 1fr) auto;
    padding: 10px 12px;
  }

  .drawing {
    grid-column: 1 / -1;
  }

  .acts .act {
    min-height: 44px;
  }
}
</style>
