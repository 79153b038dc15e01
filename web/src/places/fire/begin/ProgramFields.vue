<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, reactive, ref, watch } from 'vue'
import { useWays } from '@/shared/api/useWays'
import { type Course, courses } from '@/shared/parts/courseWords'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { type Fires, type Program, useSaveProgram } from '@/places/fire/useFires'
import { type Draft, stageWords } from './fireDraft'

/** The program of a fire: one of the kitchen's own, one of common practice, or stages typed; and saving it. */
const props = defineProps<{
  fires: Fires
  methods: string[]
  /** What all of the pieces chosen are to become, where that was said. */
  course: Course | null
  /** The program leads elsewhere: it may stay what was said. */
  isAsked: boolean
}>()
const draft = defineModel<Draft>({ required: true })
const { data: ways } = useWays()
const saved = reactive({ name: '', way: '' })
const { state, problem, write, isSaving } = useSaveProgram(() => [saved, draft.value.stages])

const nameOf = (one: Program | undefined): string =>
  one ? (one.version ? `${one.name}, version ${one.version}` : one.name) : ''
const chosen = computed(() => props.fires.programs.find((one) => one.name === draft.value.program))
const latest = computed(() => props.fires.programs.find((one) => one.name === saved.name))
const basis = computed(() => {
  if (chosen.value?.version) return chosen.value.way ? `Belongs to ${chosen.value.way}.` : ''
  return `${props.fires.programs_source}.`
})

function begin(name: string): void {
  const found = props.fires.programs.find((one) => one.name === name)
  draft.value.program = name
  if (!found) return
  draft.value.stages = found.stages.map((stage) => ({ ...stage }))
  draft.value.pull_at = found.pull_at
  if (found.wood) draft.value.wood = found.wood
  Object.assign(saved, found.version ? { name: found.name, way: found.way } : { name: '', way: '' })
}
/** Offered: the program of the method of what is chosen, else the first for what it is to become. */
const offered = ref('')
watch([() => props.methods, () => props.course], ([methods, course]) => {
  if (draft.value.program !== offered.value) return
  const own = props.fires.programs.find((one) => one.way && methods.includes(one.way))
  const found = own ?? props.fires.programs.find((one) => course && one.courses.includes(course))
  offered.value = found?.name ?? ''
  if (found) begin(found.name)
})
const becomes = computed(() => [
  { value: '' as const, word: 'As said, else by the program' },
  ...courses,
  ...(props.isAsked ? [{ value: 'as_said' as const, word: 'Leave it as said' }] : []),
])
function save(): void {
  const { stages, pull_at, wood } = draft.value
  void write({ ...saved, stages, pull_at, wood: wood ?? '', put_away: false }, () => {
    draft.value.program = saved.name
  })
}
</script>

<template>
  <section class="panel program" aria-label="Program">
    <h2>Program</h2>
    <SelectBox label="Begin with" :model-value="draft.program" @update:model-value="begin($event)">
      <option value="">stages of my own</option>
      <option v-for="one in fires.programs" :key="one.name" :value="one.name">{{ nameOf(one) }}</option>
    </SelectBox>
    <p class="quiet small">{{ basis }}</p>
    <ol>
      <li v-for="(stage, index) in draft.stages" :key="index" class="stage">
        <SelectBox v-model="stage.kind" :label="`Stage ${index + 1}`">
          <option v-for="(word, kind) in stageWords" :key="kind" :value="kind">{{ word }}</option>
        </SelectBox>
        <TypedInput v-model="stage.air" :label="`Air, °${fires.unit}`" inputmode="decimal" />
        <TypedInput v-model="stage.minutes" label="Minutes" inputmode="numeric" />
        <TypedInput v-model="stage.inside" :label="`or inside, °${fires.unit}`" inputmode="decimal" />
        <ActButton v-if="draft.stages.length > 1" small @click="draft.stages.splice(index, 1)">
          Remove stage {{ index + 1 }}
        </ActButton>
      </li>
    </ol>
    <ActButton small @click="draft.stages.push({ kind: 'cook', air: '', minutes: '', inside: '' })">
      Add a stage
    </ActButton>
    <TypedInput
      v-model="draft.pull_at"
      :label="`Pull at, inside °${fires.unit}`"
      inputmode="decimal"
      placeholder="none"
    />
    <ChoiceBar v-model="draft.course" label="Becomes" :choices="becomes" />
    <FoldAway class="save" word="Save this program">
      <div class="saving">
        <TypedInput v-model="saved.name" label="Name" :suggestions="fires.programs.map((one) => one.name)" />
        <SelectBox v-model="saved.way" label="Belongs to the method">
          <option value="">none</option>
          <option v-for="one in ways?.ways ?? []" :key="one.input.name" :value="one.input.name">
            {{ one.input.name }}
          </option>
        </SelectBox>
        <ActButton v-may:cook small :disabled="isSaving" @click="save">Save it</ActButton>
      </div>

      <p v-if="state === 'saved'" role="status">Saved as {{ nameOf(latest) }}.</p>
      <ProblemNote v-if="problem" :problem="problem" fields />
    </FoldAway>
  </section>
</template>

<style scoped>
.program {
  display: grid;
  gap: 10px;
}

.saving {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  margin: 8px 0;
}

.saving .field {
  flex: 1 1 170px;
}

.stage {
  display: grid;
  grid-template-columns: minmax(110px, 1.4fr) repeat(3, minmax(70px, 1fr));
  gap: 8px;
  align-items: end;
  margin-bottom: 10px;
}

.stage .act {
  grid-column: 1 / -1;
  justify-self: start;
}

@media (max-width: 979px) {
  .stage {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
</style>
