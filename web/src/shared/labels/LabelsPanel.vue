<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { ref } from 'vue'
import { api, type Problem, refusal, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useUnits } from '@/shared/quantity/useUnits'
import DropPanel from '@/shared/ui/DropPanel.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

/** Labels for pieces, tubs or packs: a sheet as PDF, or one by one from the label printer, shown as they came out. */
const props = defineProps<{ code: string; marks?: string[]; packs?: boolean }>()
const kitchen_slug = useSlug()
const { country } = useUnits()
const paper = ref<'letter' | 'a4'>(country.value?.paper ?? 'letter')
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
      <SelectBox v-model="paper" label="Label sheet">
        <option value="letter">letter, 2 across</option>
        <option value="a4">A4, 2 across</option>
      </SelectBox>
      <TickBox v-if="!marks && !packs" v-model="tubs">for the tubs, not the pieces</TickBox>
      <ActButton :href="sheet()" target="_blank" rel="noopener">Open label sheet (PDF)</ActButton>
      <ActButton first :disabled="isPrinting" @click="print">
        {{ isPrinting ? 'Printing …' : 'Print on the label printer' }}
      </ActButton>
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
