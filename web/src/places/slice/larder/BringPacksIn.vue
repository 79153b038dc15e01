<script setup lang="ts">
import ChooseFile from '@/shared/ui/ChooseFile.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import { renewShown } from '@/shared/api/renewShown'
import { useSlug } from '@/shared/api/useSlug'
import { useUnits } from '@/shared/quantity/useUnits'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { type FileIn, readFile } from '@/shared/writing/readFile'

/** Packs of a file: looked at first, with what is at fault by its row, then brought in, all or none. */
const kitchen_slug = useSlug()
const queries = useQueryClient()
const { weightText } = useUnits()
const file = ref<FileIn | null>(null)
const found = ref<Schemas['PacksFoundOut'] | null>(null)
const fault = ref<Problem | null>(null)
const importing = useKitchenWrite('packs', '/larder/imports')
async function look(chosen: File): Promise<void> {
  found.value = null
  file.value = await readFile(chosen)
  const body = file.value
  fault.value = await refusal(async () => {
    found.value = await take(
      api.POST('/api/kitchens/{kitchen_slug}/previews/larder/imports', {
        params: { path: { kitchen_slug: kitchen_slug.value } },
        body,
      }),
    )
  })
}
function bringIn(): void {
  if (!file.value) return
  void importing.write(file.value, () => {
    found.value = null
    renewShown(queries)
  })
}
const packsText = (count: number): string => `${count} ${count === 1 ? 'pack' : 'packs'}`
</script>

<template>
  <ChooseFile v-may:cook word="Import packs (CSV, XLSX, JSON)" accept=".csv,.xlsx,.json" @choose="look" />
  <p class="quiet small">Columns: batch, pack, piece, product, form, packed, weight, slices, place.</p>
  <ProblemNote v-if="fault" :problem="fault" />
  <template v-if="found">
    <p v-if="found.problems.length"><b>Nothing was imported.</b> Correct these in the file:</p>
    <p v-else>
      <b>{{ packsText(found.new) }}</b> to import{{
        found.same ? `, ${found.same} here already and left as they are` : ''
      }}
    </p>
    <ul v-if="found.problems.length" class="dear small">
      <li v-for="(one, at) in found.problems" :key="at">▲ {{ one.path }}: {{ one.message }}</li>
    </ul>
    <ul v-else class="small">
      <li v-for="one in found.packs.slice(0, 6)" :key="`${one.code} ${one.mark}`">
        {{ one.code }} {{ one.mark }} {{ one.product }}, {{ weightText(one.weight)
        }}{{ one.store ? `, ${one.store}` : '' }}
      </li>
      <li v-if="found.new > 6">and {{ found.new - 6 }} more</li>
    </ul>
    <ActButton
      v-if="found.new && !found.problems.length"
      first
      :disabled="importing.isSaving.value"
      @click="bringIn"
    >
      Import {{ packsText(found.new) }}
    </ActButton>
  </template>
  <ProblemNote v-if="importing.problem.value" :problem="importing.problem.value" />
  <p v-if="importing.state.value === 'saved' && !found" class="good" role="status">✓ imported</p>
</template>
