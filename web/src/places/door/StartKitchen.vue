<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'

import { countries, likelyCountry, ownZone, countryOf } from '@/shared/kitchen/regions'
import PersonFields from './PersonFields.vue'
import RoomWalk from './RoomWalk.vue'
import UnitFields from '@/shared/kitchen/UnitFields.vue'

/** A kitchen of one's own, in three short steps; the third can be skipped. */
type Wanted = Schemas['StartKitchenIn']
const { session, become, choose } = useSession()
const router = useRouter()
const isDemo = computed(() => session.value?.username === session.value?.demo?.username)
/** Who owns a kitchen here already starts another one as themselves. */
const isKnown = computed(() => Boolean(session.value?.signed_in) && !isDemo.value)
const country = ref(likelyCountry())
const usual = countryOf(country.value)
const draft = reactive({
  name: '',
  scale: '',
  stores: [] as NonNullable<Wanted['stores']>,
})
const units = ref({
  currency: usual?.currency ?? 'USD',
  weight_unit: usual?.unit ?? ('lb' as const),
  temperature_unit: usual?.degrees ?? ('F' as const),
  decimal_sign: usual?.decimal ?? ('.' as const),
  time_zone: ownZone(),
  country: country.value,
})
watch(country, (now) => {
  const found = countryOf(now)
  if (!found) return
  units.value = {
    ...units.value,
    country: now,
    currency: found.currency,
    weight_unit: found.unit,
    temperature_unit: found.degrees,
    decimal_sign: found.decimal,
  }
})
const person = ref({ cook: '', username: '', password: '' })
const step = ref(1)
const steps = computed(() => (isKnown.value ? ['Kitchen', 'What it has'] : ['Kitchen', 'You', 'What it has']))
const here = computed(() => steps.value[step.value - 1])
const problem = ref<Problem | null>(null)
const isSending = ref(false)
provideFormFacts({ preview: ref(null), problem })

const first: Record<string, string[]> = {
  Kitchen: ['name', 'currency', 'time_zone'],
  You: ['cook', 'username', 'password'],
}
/** A fault is shown at the step whose field it is. */
function goToFault(): void {
  const at = steps.value.findIndex((one) =>
    problem.value?.fields?.some((field) => first[one]?.includes(field.path)),
  )
  if (at >= 0) step.value = at + 1
}
async function next(): Promise<void> {
  problem.value = null
  if (step.value < steps.value.length) {
    step.value += 1
    return
  }
  await send()
}
async function send(): Promise<void> {
  isSending.value = true
  problem.value = await refusal(async () => {
    await take(api.GET('/api/session'))
    const made = await take(
      api.POST('/api/kitchens', { body: { ...units.value, ...person.value, ...draft } }),
    )
    choose(made.slug)
    become(made.session)
    await router.push({ name: 'start' })
  })
  isSending.value = false
  goToFault()
}
</script>

<template>
  <form class="panel start" novalidate @submit.prevent="next">
    <h1>Start your kitchen</h1>
    <ol aria-label="Steps">
      <li v-for="(one, at) in steps" :key="one" :aria-current="at + 1 === step ? 'step' : undefined">
        {{ at + 1 }} {{ one }}
      </li>
    </ol>
    <section v-if="here === 'Kitchen'" class="lines">
      <TypedInput v-model="draft.name" label="Its name" path="name" placeholder="The Back Porch" />
      <SelectBox v-model="country" label="Country" path="country"
        ><option v-for="one in countries" :key="one.value" :value="one.value">
          {{ one.word }}
        </option></SelectBox
      >
      <UnitFields v-model="units" without />
    </section>
    <section v-else-if="here === 'You'" class="lines">
      <PersonFields v-model="person" />
    </section>
    <RoomWalk v-else v-model:scale="draft.scale" v-model:stores="draft.stores" :unit="units.weight_unit" />
    <ProblemNote v-if="problem" :problem="problem" />
    <div class="buttons">
      <ActButton first submit :disabled="isSending">
        {{ step < steps.length ? 'Next' : 'Start the kitchen' }}
      </ActButton>
      <ActButton v-if="step > 1" @click="step -= 1">Back</ActButton>
      <ActButton v-else to="/">Cancel</ActButton>
    </div>
  </form>
</template>

<style scoped>
.start {
  display: grid;
  gap: 14px;
  width: min(620px, 100%);
  margin: 24px auto;
  padding: 24px;
}

ol {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  border-bottom: 2px solid var(--edge);
}

li {
  padding: 4px 0;
  color: var(--quiet);
  font-weight: 600;
  margin-bottom: -2px;
}

li[aria-current] {
  color: var(--ink);
  border-bottom: 3px solid var(--rose);
}

.buttons {
  display: flex;
  gap: 8px;
}
</style>
