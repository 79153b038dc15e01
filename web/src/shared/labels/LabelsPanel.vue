<script setup lang="ts">
import { ref } from 'vue'
import { api, type Problem, refusal, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import DropPanel from '@/shared/ui/DropPanel.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

/** Labels for pieces, tubs or packs: a sheet as PDF, or one by one from the label printer, shown as they came out. */
const props = defineProps<{ code: string; marks?: string[]; packs?: boolean }>()
const kitchen_slug = useSlug()
const paper = ref<'letter' | 'a4'>('letter')
const pictures = ref<string[]>([])
const tubs = ref(false)
const problem = ref<Problem | null>(null)
const isPrinting = ref(false)
const sheet = (): string => {
  const marks = (props.marks ?? []).map((mark) => `&marks=${encodeURIComponent(mark)}`).join('')
  if (props.packs)
    return `/api/kitchens/${kitchen_slug.value}/batches/${props.code}/pack-labels.pdf?paper=${paper.value}${marks}`
  return `/api/kitchens/${kitchen_slug.value}/batches/${props.code}/labels.pdf?paper=${paper.value}${tubs.value ? '&tubs=true' : marks}`
}

async function print(): Promise<void> {
  isPrinting.value = true
  problem.value = await refusal(async () => {
    const path = { kitchen_slug: kitchen_slug.value, code: props.code }
    const body = { marks: props.marks ?? [], tubs: tubs.value, packs: props.packs ?? false }
    const answer = await take(
      api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/labels', { params: { path }, body }),
    )
    pictures.value = answer.pictures
  })
  isPrinting.value = false
}
</script>

<template>
  <DropPanel word="Labels">
    <div class="labels">
      <label class="named">
        <span>Label sheet</span>
        <select v-model="paper" class="box">
          <option value="letter">letter, 2 across</option>
          <option value="a4">A4, 2 across</option>
        </select>
      </label>
      <label v-if="!marks && !packs" class="tick">
        <input v-model="tubs" type="checkbox" /> for the tubs, not the pieces
      </label>
      <a class="act" :href="sheet()" target="_blank" rel="noopener">Open label sheet (PDF)</a>
      <button type="button" class="act first" :disabled="isPrinting" @click="print">
        {{ isPrinting ? 'Printing …' : 'Print on the label printer' }}
      </button>
      <ProblemNote v-if="problem" :problem="problem" />
      <template v-if="pictures.length">
        <p class="good" role="status">✓ {{ pictures.length }} printed (simulated printer):</p>
        <img
          v-for="(picture, place) in pictures"
          :key="place"
          :src="picture"
          :alt="`Label ${place + 1} as printed`"
        />
      </template>
    </div>
  </DropPanel>
</template>

<style scoped>
.labels {
  display: grid;
  gap: 10px;
  max-height: 70vh;
  overflow-y: auto;
}

img {
  width: 100%;
  border: 1px solid var(--edge);
}
</style>
