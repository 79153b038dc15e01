<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref, toRef } from 'vue'
import { usePack, useTaking } from '@/places/slice/useLarder'
import { fates, type Fate } from '@/shared/parts/fates'
import LabelsPanel from '@/shared/labels/LabelsPanel.vue'
import { useOutbox } from '@/shared/outbox/outbox'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import PackHistory from './PackHistory.vue'
import TakeForm from './TakeForm.vue'

/** One pack, as its label's code opens it: how much, until when, and out it goes in one touch. */
const props = defineProps<{ code: string; mark: string }>()
const { data, error, refetch } = usePack(toRef(props, 'code'), toRef(props, 'mark'))
const { weightText, otherText, money } = useUnits()
const { takeOut, move, weighAgain } = useTaking()
const { letters } = useOutbox()
const pack = computed(() => data.value?.pack)
const waiting = computed(() =>
  letters.value.filter((one) => one.code === props.code && one.mark === props.mark),
)
const weighed = ref('')
function weigh(): void {
  weighAgain(props, weighed.value)
  weighed.value = ''
}
const how = ref<'all' | 'slices' | 'weight'>('all')
const slices = ref('3')
const weight = ref('')
const asked = ref<Fate | null>(null)
const amount = computed(() => ({
  slices: how.value === 'slices' ? slices.value : '',
  weight: how.value === 'weight' ? weight.value : '',
}))
const all = computed(() => {
  const now = pack.value
  if (!now) return ''
  if (!now.left_slices) return weightText(now.left)
  return `${now.left_slices} ${now.left_slices === 1 ? 'slice' : 'slices'}`
})
const what = computed(() =>
  how.value === 'all' ? `all ${all.value}` : how.value === 'slices' ? `${slices.value} slices` : weight.value,
)
function out(fate: Fate, more: object = {}): void {
  takeOut(props, { fate, ...amount.value, ...more })
  asked.value = null
  how.value = 'all'
  weight.value = ''
}
function touch(fate: Fate): void {
  if (fates.find((one) => one.value === fate)?.asks) asked.value = asked.value === fate ? null : fate
  else out(fate)
}
const step = (by: number): void => {
  const most = pack.value?.left_slices ?? 999
  slices.value = String(Math.min(most, Math.max(1, (Number(slices.value) || 0) + by)))
}
</script>

<template>
  <LoadState v-if="!data || !pack" :error="error" what="the pack" @retry="refetch()" />
  <template v-else>
    <div class="head">
      <h1>{{ pack.product }}</h1>
      <span class="badge">{{ pack.code }} {{ pack.mark }}</span>
      <span class="quiet"
        >packed {{ dayText(pack.packed_at) }}, {{ weightText(pack.made)
        }}{{ pack.slices ? `, ${pack.slices} slices` : '' }}</span
      >
      <div class="acts">
        <ActLink :to="{ name: 'strip', params: { code: pack.code } }">Its batch</ActLink>
        <LabelsPanel v-if="!pack.is_gone" :code="code" :marks="[mark]" packs />
      </div>
    </div>
    <p v-if="pack.is_raw" class="raw" role="note">
      ▲ Raw: cook before eating. It was not heated enough to be cooked.
    </p>
    <p v-for="one in waiting" :key="one.key" class="panel waits" role="status">
      {{ one.words }}: {{ one.problem ? one.problem.detail : 'waiting to be sent' }}
    </p>
    <div class="two">
      <section class="panel" aria-label="What is left">
        <p class="quiet">{{ pack.is_gone ? 'Gone' : 'Left' }}</p>
        <p class="heavy">{{ pack.is_gone ? 'nothing left' : all }}</p>
        <p v-if="!pack.is_gone">
          {{ weightText(pack.left) }} <span class="quiet">({{ otherText(pack.left) }})</span>,
          {{ money(pack.left_cost) }} of {{ money(pack.cost) }}
        </p>
        <p>
          <b>{{ pack.state }}</b>{{ pack.store ? `, ${pack.store}` : ', not placed' }}
        </p>
        <p v-if="pack.keep_until && !pack.is_gone" :class="{ care: pack.is_past || pack.is_soon }">
          {{ pack.is_past ? '▲ past its use-by date,' : pack.is_past_best ? 'best before' : 'use by' }}
          <b>{{ dayText(pack.keep_until) }}</b>
          <span class="quiet small"> as {{ data.keeps_like }}; {{ data.keep_source }}</span>
        </p>
        <p v-else-if="!pack.is_gone" class="quiet small">
          The chart has no row for what is dried or fermented: it keeps by how far it was dried.
        </p>
        <p v-if="!pack.is_gone" class="quiet small">{{ data.vacuum }}</p>
      </section>
      <section v-if="!pack.is_gone" class="panel take" aria-label="Take from it">
        <h2>Take</h2>
        <div class="how" role="group" aria-label="How much">
          <ActButton :aria-pressed="how === 'all'" @click="how = 'all'"> All {{ all }} </ActButton>
          <ActButton v-if="pack.left_slices" :aria-pressed="how === 'slices'" @click="how = 'slices'">
            Some slices
          </ActButton>
          <ActButton :aria-pressed="how === 'weight'" @click="how = 'weight'"> A weight </ActButton>
        </div>
        <div v-if="how === 'slices'" class="count">
          <ActButton aria-label="One slice fewer" @click="step(-1)">−</ActButton>
          <TypedInput v-model="slices" label="Slices" quiet-label inputmode="numeric" />
          <ActButton aria-label="One slice more" @click="step(1)">+</ActButton>
        </div>
        <TypedInput v-if="how === 'weight'" v-model="weight" label="Weight taken" placeholder="4 oz" />
        <div class="fates" role="group" :aria-label="`What happened to ${what}`">
          <ActButton
            v-for="fate in fates"
            :key="fate.value"
            :first="fate.value === 'eaten'"
            :aria-expanded="fate.asks ? asked === fate.value : undefined"
            :disabled="how === 'weight' && !weight"
            @click="touch(fate.value)"
          >
            {{ fate.word }}
          </ActButton>
        </div>
        <TakeForm
          v-if="asked"
          :key="asked"
          :fate="asked"
          :what="what"
          :batches="data.batches"
          @take="(more) => asked && out(asked, more)"
        />
      </section>
      <section v-if="!pack.is_gone && data.stores.length" class="panel" aria-label="Where it lies">
        <h2>Move it</h2>
        <div class="fates">
          <ActButton
            v-for="store in data.stores.filter((one) => one.name !== pack?.store)"
            :key="store.name"
            @click="move(props, { sort: 'placed', store: store.name })"
          >
            {{ store.sort === 'freezer' ? 'Freeze in' : pack.state === 'frozen' ? 'Thaw in' : 'Into' }}
            {{ store.name }}
          </ActButton>
          <ActButton
            v-if="pack.state !== 'open' && pack.state !== 'frozen'"
            @click="move(props, { sort: 'opened', store: '' })"
          >
            Open it
          </ActButton>
        </div>
      </section>
      <form v-if="!pack.is_gone" v-may:helper class="panel again" @submit.prevent="weigh">
        <TypedInput
          v-model="weighed"
          label="Weigh it again: what ran out in the bag, or dried away in the freezer"
          :placeholder="weightText(pack.left)"
        />
        <ActButton submit :disabled="!weighed">
          {{ weighed ? `It weighs ${weighed}` : 'Enter a weight' }}
        </ActButton>
      </form>
      <PackHistory :page="data" @changed="refetch()" />
    </div>
  </template>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 380px), 1fr));
  gap: 16px;
  align-items: start;
}

section,
.again {
  display: grid;
  gap: 8px;
}

.again .act {
  justify-self: start;
}

.heavy {
  font-size: 40px;
  font-weight: 780;
  font-stretch: 112%;
  line-height: 1.1;
  color: var(--rose-deep);
}

.raw,
.waits {
  margin-bottom: 12px;
}

.raw {
  padding: 8px 12px;
  border-left: 6px solid var(--care);
  background: var(--care-ground);
  font-weight: 640;
}

.care {
  color: var(--care-ink);
}

.how,
.fates,
.count {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(128px, 1fr));
  gap: 8px;
}

.fates .act {
  min-height: 56px;
}

[aria-pressed='true'] {
  outline: 3px solid var(--rose);
  outline-offset: -2px;
}

.count {
  grid-template-columns: 64px minmax(0, 1fr) 64px;
}

.count .field {
  text-align: center;
  font-size: 22px;
}
</style>
