<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import ChooseFile from '@/shared/ui/ChooseFile.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { momentText } from '@/shared/quantity/when'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { newKey } from '@/shared/writing/newKey'
import type { Live } from '@/places/fire/useFires'

/** A logger's file or a cook log taken into a fire: columns matched, zone and unit asked, then kept. */
const props = defineProps<{ live: Live }>()
const kitchen_slug = useSlug()
const queries = useQueryClient()
const file = ref<File | null>(null)
const seen = ref<Schemas['LogPreviewOut'] | null>(null)
const match = ref<Schemas['LogMatchIn'] | null>(null)
const problem = ref<Problem | null>(null)
const isBusy = ref(false)
let key = newKey()
const path = computed(() => ({ kitchen_slug: kitchen_slug.value, fire_id: props.live.id }))
const zones = Intl.supportedValuesOf('timeZone')
const pieces = computed(() => [...new Set(props.live.hanging.map((one) => one.label))])
/** The pieces probes are in now; a probe in none is put into one with the log. */
const placed = computed(
  () => new Map(props.live.curves.filter((one) => one.is_now).map((one) => [one.probe, one.piece])),
)
const unplaced = computed(() =>
  Object.values(match.value?.columns ?? {}).filter(
    (probe) => probe && probe !== 'air' && !placed.value.has(probe),
  ),
)

/** The file beside its match, as a form. */
const form = () => ({
  body: { file: file.value as unknown as string, match: match.value ? JSON.stringify(match.value) : '' },
  bodySerializer: (body: { file: string; match?: string }) => {
    const data = new FormData()
    data.append('file', body.file)
    data.append('match', body.match ?? '')
    return data
  },
})
async function trying(act: () => Promise<void>): Promise<void> {
  isBusy.value = true
  problem.value = await refusal(act)
  isBusy.value = false
}
const look = (): Promise<void> =>
  trying(async () => {
    seen.value = await take(
      api.POST('/api/kitchens/{kitchen_slug}/previews/fires/{fire_id}/log', {
        params: { path: path.value },
        ...form(),
      }),
    )
    if (match.value) return
    const { heads, match: guessed } = seen.value
    const others = heads.map((_, at) => at).filter((at) => at !== guessed.time)
    const unused = Object.fromEntries(others.map((at) => [String(at), '']))
    match.value = { ...guessed, columns: { ...unused, ...guessed.columns } }
  })
function choose(chosen: File): void {
  file.value = chosen
  seen.value = match.value = null
  key = newKey()
  void look()
}
watch(match, (now, before) => before && now && void look(), { deep: true })
const save = (): Promise<void> =>
  trying(async () => {
    const live = await take(
      api.POST('/api/kitchens/{kitchen_slug}/fires/{fire_id}/log', {
        params: { path: path.value, header: { 'Idempotency-Key': key } },
        ...form(),
        body: { ...form().body, match: JSON.stringify(match.value) },
      }),
    )
    queries.setQueryData(['fire', kitchen_slug.value, props.live.id], live)
    file.value = seen.value = match.value = null
  })
</script>

<template>
  <FoldAway v-may:cook class="take" word="Import a log">
    <div class="inner">
      <p class="small quiet">
        A CSV or workbook of any logger, or a cook log. Nothing is kept before you say so; taking in the same
        log twice adds nothing.
      </p>
      <ChooseFile :word="file ? file.name : 'Choose a file'" accept="" @choose="choose" />
      <ProblemNote v-if="problem" :problem="problem" fields />
      <template v-if="seen && match">
        <LedgerTable>
          <caption class="unseen">
            Columns of the log
          </caption>
          <thead>
            <tr>
              <th>Column</th>
              <th>First values</th>
              <th>Is</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(head, at) in seen.heads" :key="at">
              <th scope="row">{{ head }}</th>
              <td class="quiet small">
                {{
                  seen.first
                    .slice(0, 2)
                    .map((row) => row[at])
                    .join(' · ')
                }}
              </td>
              <td>
                <span v-if="at === match.time">the time</span>
                <SelectBox v-else v-model="match.columns![String(at)]" :label="`${head} is`" quiet-label>
                  <option value="">not used</option>
                  <option value="air">the air</option>
                  <option v-for="number in 8" :key="number" :value="String(number)">
                    probe {{ number
                    }}{{ placed.has(String(number)) ? ` in ${placed.get(String(number))}` : '' }}
                  </option>
                </SelectBox>
              </td>
            </tr>
          </tbody>
        </LedgerTable>
        <div class="asked">
          <SelectBox
            v-for="probe in unplaced"
            :key="probe"
            v-model="match.places![probe]"
            :label="`Probe ${probe} was in`"
          >
            <option v-for="one in pieces" :key="one" :value="one">{{ one }}</option>
          </SelectBox>
          <SelectBox v-model="match.unit" label="Degrees">
            <option value="F">°F</option>
            <option value="C">°C</option>
          </SelectBox>
          <TypedInput
            v-model.lazy="match.zone"
            label="Time zone of the logger"
            :suggestions="zones"
            maxlength="60"
          />
          <TickBox v-model="match.day_first">03/04 is the 3rd of April</TickBox>
        </div>
        <ul v-if="seen.problems.length" class="fault">
          <li v-for="one in seen.problems" :key="one.path">▲ {{ one.message }}</li>
        </ul>
        <ul v-if="seen.notes.length" class="care">
          <li v-for="note in seen.notes" :key="note">▲ {{ note }}</li>
        </ul>
        <p v-if="seen.first_at && seen.last_at">
          {{ seen.readings }} readings of {{ seen.rows }} rows, {{ momentText(seen.first_at) }} to
          {{ momentText(seen.last_at) }}.
        </p>
        <FoldAway
          v-if="seen.faulty"
          :word="`${seen.faulty === 1 ? 'One cell' : `${seen.faulty} cells`} cannot be read, left out`"
        >
          <ul class="small">
            <li v-for="fault in seen.faults" :key="fault">{{ fault }}</li>
          </ul>
        </FoldAway>
        <ActButton
          first
          :disabled="isBusy || !seen.readings || unplaced.some((probe) => !match!.places![probe])"
          @click="save"
        >
          Take in {{ seen.readings }} readings
        </ActButton>
      </template>
    </div>
  </FoldAway>
</template>

<style scoped>
.inner {
  display: grid;
  gap: 10px;
}

.file {
  display: inline-grid;
  justify-self: start;
}

table {
  width: 100%;
  border-collapse: collapse;
  text-align: left;
}

td,
th {
  padding: 3px 8px 3px 0;
  vertical-align: middle;
}

td .field {
  min-width: 150px;
}

.asked {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 8px;
  align-items: end;
}

.act {
  justify-self: start;
}
</style>
