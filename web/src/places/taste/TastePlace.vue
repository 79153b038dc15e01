<script setup lang="ts">
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref, toRef } from 'vue'
import { api, type Problem, type ProblemError, refusal, type Schemas, take } from '@/shared/api/client'
import { momentText } from '@/shared/quantity/when'
import { newKey } from '@/shared/writing/newKey'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import ScoreRow from './ScoreRow.vue'

/** A taster's own phone: coded plates in an order of its own, five scales each, and which one to have again. */
type Scale = Schemas['TableOut']['scales'][number]
type Draft = { taster: string; scores: Record<string, Partial<Record<Scale, number>>>; again: string | null }
type Plate = { code: string } & Partial<Record<Scale, number>>
const props = defineProps<{ token: string }>()
const token = toRef(props, 'token')
const queries = useQueryClient()

/** One phone is one taster: it names itself once, and keeps what was scored until it is handed in. */
const DEVICE = 'dolmetsch:taster'
const device = localStorage.getItem(DEVICE) ?? newKey()
localStorage.setItem(DEVICE, device)
const draftKey = `dolmetsch:tasting:${token.value}`
const kept = JSON.parse(localStorage.getItem(draftKey) ?? 'null') as Draft | null
const draft = reactive<Draft>(kept ?? { taster: '', scores: {}, again: null })
const queryKey = computed(() => ['table', token.value])
const { data, error, refetch } = useQuery<Schemas['TableOut'], ProblemError>({
  queryKey,
  queryFn: () =>
    take(api.GET('/api/tastings/{token}', { params: { path: { token: token.value }, query: { device } } })),
  retry: false,
  refetchOnWindowFocus: false,
})
const problem = ref<Problem | null>(null)
const isSending = ref(false)
const labels: Record<Scale, [string, string, string]> = {
  salt: ['Salt', 'not for me', 'just right'],
  smoke: ['Smoke', 'not for me', 'just right'],
  sweetness: ['Sweetness', 'not for me', 'just right'],
  texture: ['Texture', 'not for me', 'just right'],
  color: ['Color', 'not for me', 'just right'],
}
function setScore(code: string, scale: Scale, score: number): void {
  draft.scores[code] = { ...draft.scores[code], [scale]: score }
  localStorage.setItem(draftKey, JSON.stringify(draft))
}
const missing = computed(() =>
  (data.value?.plates ?? []).filter((code) =>
    data.value?.scales.some((scale) => !draft.scores[code]?.[scale]),
  ),
)
/** Each plate, or none of them. */
const again = computed(() => [
  ...(data.value?.plates ?? []).map((code) => ({ value: code, word: `Plate ${code}` })),
  { value: '', word: 'I can’t choose' },
])
const isReady = computed(() => !missing.value.length && draft.again !== null)
const waitingFor = computed(() => {
  if (missing.value.length) return `Still to score: plate ${missing.value.join(', ')}.`
  return draft.again === null ? 'Say which one you would have again.' : ''
})
async function send(): Promise<void> {
  isSending.value = true
  problem.value = await refusal(async () => {
    const plates: Plate[] = (data.value?.plates ?? []).map((code) => ({ code, ...draft.scores[code] }))
    const table = await take(
      api.POST('/api/tastings/{token}/sheets', {
        params: { path: { token: token.value } },
        body: { taster: draft.taster, device, plates, again: draft.again ?? '' },
      }),
    )
    queries.setQueryData(queryKey.value, table)
    localStorage.removeItem(draftKey)
  })
  isSending.value = false
}
</script>

<template>
  <div class="table">
    <LoadState v-if="!data" :error="error" what="the tasting" @retry="refetch()" />
    <section v-else-if="data.scored_at" class="panel done" role="status">
      <h1>Thank you</h1>
      <p>
        Your scores were handed in at {{ momentText(data.scored_at) }}. The kitchen will tell you what they
        say.
      </p>
    </section>
    <form v-else aria-label="Tasting" @submit.prevent="send">
      <h1>Tasting at {{ data.kitchen }}</h1>
      <p class="quiet">
        Taste the plates in this order, with a sip of water between. Score each on five scales; there is no
        right answer. Open until {{ momentText(data.closes_at) }}.
      </p>
      <TypedInput
        v-model="draft.taster"
        label="Your name (may stay empty)"
        maxlength="40"
        autocomplete="given-name"
      />
      <section v-for="code in data.plates" :key="code" class="panel" :aria-label="`Plate ${code}`">
        <h2>
          Plate <span class="code">{{ code }}</span>
        </h2>
        <ScoreRow
          v-for="scale in data.scales"
          :key="scale"
          :label="labels[scale][0]"
          :low="labels[scale][1]"
          :high="labels[scale][2]"
          :least="data.least"
          :most="data.most"
          :score="draft.scores[code]?.[scale] ?? null"
          @set="(score) => setScore(code, scale, score)"
        />
      </section>
      <ChoiceBar
        v-model="draft.again"
        class="panel"
        label="Which one would you have again?"
        :choices="again"
      />
      <ProblemNote v-if="problem" :problem="problem" />
      <ul v-if="problem" class="faults">
        <li v-for="one in problem.fields" :key="one.path">{{ one.message }}</li>
      </ul>
      <p v-if="waitingFor" class="quiet" role="status">{{ waitingFor }}</p>
      <ActButton first submit :disabled="isSending || !isReady">
        {{ isSending ? 'Handing in …' : 'Hand in my scores' }}
      </ActButton>
      <p class="quiet small">Once handed in, scores cannot be changed.</p>
    </form>
  </div>
</template>

<style scoped>
.table {
  max-width: 560px;
  margin: 0 auto;
}

form {
  display: grid;
  gap: 12px;
}

.code {
  font-size: 28px;
  font-weight: 780;
  font-stretch: 112%;
}

.done {
  display: grid;
  gap: 8px;
  padding: 40px 20px;
}

.faults {
  color: var(--rose-deep);
}
</style>
