<script setup lang="ts">
import { useDraft } from '@/shared/writing/useDraft'
import ActButton from '@/shared/ui/ActButton.vue'
import DateBox from '@/shared/ui/DateBox.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { labelOf, piecesOf, probePlaces } from '@/places/fire/pieces'
import { useMap } from '@/shared/api/useBench'
import { courseWord } from '@/shared/parts/courseWords'
import { useUnits } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useBegin, useFires } from '@/places/fire/useFires'
import { blankFire, type Chosen, fireBody } from './fireDraft'
import ProgramFields from './ProgramFields.vue'

/** Into the smoke: which pieces with which probes, where they hang, and by which program. */
const router = useRouter()
const { data: map, error, refetch } = useMap()
const { data: fires } = useFires()
const { weightText } = useUnits()
const { write, problem, isSaving } = useBegin()
const { draft: typed, clear } = useDraft('fire', () => ({
  fire: blankFire(),
  chosen: {} as Record<string, Chosen>,
}))
const draft = toRef(typed, 'fire')
const chosen = toRef(typed, 'chosen')

const pieces = computed(() => piecesOf(map.value))
const count = computed(() => Object.values(chosen.value).filter((one) => one.isIn).length)
/** What was chosen stays on the device until the fire begins; a piece may be gone by then. */
watch(
  pieces,
  (all) => {
    const there = new Set(all.map(labelOf))
    if (!map.value || Object.keys(chosen.value).every((name) => there.has(name))) return
    chosen.value = Object.fromEntries(Object.entries(chosen.value).filter(([name]) => there.has(name)))
  },
  { immediate: true },
)

const smokers = computed(() => (map.value?.stores ?? []).filter((one) => one.sort === 'smoker'))
const smoker = computed(() => smokers.value.find((one) => one.name === draft.value.store))
watch(smokers, (all) => (draft.value.store ||= all[0]?.name ?? ''), { immediate: true })
/** The rack a piece hangs on already, by the map; else the first that has room. */
function rackOf(name: string): number {
  const { levels = 1, slots = 1, lying = [] } = smoker.value ?? {}
  const there = lying.find((one) => labelOf(one) === name)
  const isIn = (one: { code: string; mark: string }): boolean => chosen.value[labelOf(one)]?.isIn ?? false
  const hasRoom = (rack: number): boolean =>
    lying.filter((one) => one.level === rack && !isIn(one)).length +
      Object.values(chosen.value).filter((one) => one.isIn && one.rack === rack).length <
    slots
  return there?.level ?? Array.from({ length: levels }, (_, at) => at + 1).find(hasRoom) ?? 1
}

function toggle(name: string): void {
  const one = chosen.value[name]
  if (one) {
    one.isIn = !one.isIn
    return
  }
  const used = Object.values(chosen.value).filter((other) => other.isIn && other.probe).length
  const probe = used < 8 ? String(used + 1) : ''
  chosen.value[name] = { isIn: true, probe, where: 'thick end', rack: rackOf(name) }
}
watch(
  () => fires.value?.cookers,
  (cookers) => {
    if (cookers?.length && !draft.value.cooker)
      draft.value.cooker = cookers.find((one) => !one.fire)?.name ?? ''
  },
  { immediate: true },
)
const goingIn = computed(() => pieces.value.filter((one) => chosen.value[labelOf(one)]?.isIn))
/** The methods of the batches whose pieces are chosen. */
const methods = computed(() => {
  const found = goingIn.value.map(({ code }) => fires.value?.methods[code] ?? '').filter((name) => name)
  return [...new Set(found)]
})
/** What all of the pieces chosen are to become; null where they differ, or nobody said. */
const course = computed(() => {
  const found = new Set(goingIn.value.map((one) => one.course))
  return found.size === 1 ? ([...found][0] ?? null) : null
})
/** A program that leads elsewhere than what was said is asked about. */
const isAsked = computed(() => problem.value?.fields.some((one) => one.path === 'course') ?? false)
function begin(): void {
  void write(fireBody(draft.value, pieces.value, chosen.value, smoker.value?.lying), ({ id }) => {
    clear()
    void router.push({ name: 'fire-live', params: { id } })
  })
}
</script>

<template>
  <div class="head">
    <h1>Into the smoke</h1>
    <span class="quiet">{{ count === 1 ? 'one piece' : `${count || 'no'} pieces` }}</span>
  </div>
  <LoadState v-if="!map || !fires" :error="error" what="the pieces" @retry="refetch()" />
  <form v-else v-may:cook class="form" @submit.prevent="begin">
    <section class="panel" aria-label="Pieces">
      <h2>Which pieces, and which probe in each</h2>
      <p v-if="!pieces.length">No piece is under way. Start a batch first.</p>
      <ul>
        <li v-for="piece in pieces" :key="labelOf(piece)">
          <TickBox
            :model-value="chosen[labelOf(piece)]?.isIn ?? false"
            @update:model-value="toggle(labelOf(piece))"
            ><b>{{ labelOf(piece) }}</b
            >{{ ' '
            }}<span class="quiet"
              >{{ piece.name }}, {{ weightText(piece.weight)
              }}{{ piece.course ? `, to be ${courseWord(piece.course)}` : '' }}</span
            ></TickBox
          >
          <div v-if="chosen[labelOf(piece)]?.isIn" class="placing">
            <SelectBox v-model="chosen[labelOf(piece)]!.probe" label="Probe">
              <option value="">none</option>
              <option v-for="number in 8" :key="number" :value="String(number)">{{ number }}</option>
            </SelectBox>
            <TypedInput
              v-model="chosen[labelOf(piece)]!.where"
              label="Where in it"
              :suggestions="probePlaces"
              maxlength="40"
            />
            <SelectBox v-model="chosen[labelOf(piece)]!.rack" label="Rack">
              <option v-for="rack in smoker?.levels ?? 8" :key="rack" :value="rack">{{ rack }}</option>
            </SelectBox>
          </div>
        </li>
      </ul>
    </section>
    <section class="panel fields" aria-label="The fire">
      <SelectBox v-model="draft.cooker" label="Cooker">
        <option value="">none: readings by hand</option>
        <option v-for="one in fires.cookers" :key="one.name" :value="one.name">{{ one.name }}</option>
      </SelectBox>
      <SelectBox v-if="smokers.length" v-model="draft.store" label="Smoker, on the map">
        <option v-for="one in smokers" :key="one.name" :value="one.name">{{ one.name }}</option>
        <option value="">not on the map</option>
      </SelectBox>
      <SelectBox v-model="draft.meat" label="Meat">
        <option v-for="one in ['pork', 'beef', 'poultry', 'other']" :key="one" :value="one">
          {{ one }}
        </option>
      </SelectBox>
      <TickBox v-model="draft.ground">ground</TickBox>
      <TypedInput v-model="draft.wood" label="Wood" maxlength="80" placeholder="cherry" />
      <TypedInput
        v-model="draft.nitrite_ppm"
        label="Nitrite in it, ppm (cured: 100 or more)"
        inputmode="decimal"
        placeholder="as cured here"
      />
      <DateBox v-model="draft.meal_at" label="For eating at" kind="datetime-local" />
      <DateBox v-model="draft.begun_at" label="Started earlier, at" kind="datetime-local" />
    </section>
    <ProgramFields v-model="draft" :fires="fires" :methods="methods" :course="course" :is-asked="isAsked" />
    <div class="last">
      <ProblemNote v-if="problem" :problem="problem" fields />
      <ActButton first submit :disabled="isSaving || !count">
        {{ count ? `Put ${count === 1 ? 'one piece' : `${count} pieces`} into the smoke` : 'Choose a piece' }}
      </ActButton>
    </div>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}

.form > section:first-child {
  grid-row: span 2;
}

.fields {
  display: grid;
  gap: 10px;
  grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
  align-items: end;
}

.placing {
  display: grid;
  grid-template-columns: 90px minmax(0, 1fr) 80px;
  gap: 8px;
  padding: 0 0 10px 30px;
}

.last {
  grid-column: 1 / -1;
  display: grid;
  gap: 8px;
  justify-items: start;
}

@media (max-width: 979px) {
  .form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
