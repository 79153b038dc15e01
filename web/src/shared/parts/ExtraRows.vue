<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import FoldAway from '@/shared/ui/FoldAway.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import RemoveButton from '@/shared/ui/RemoveButton.vue'
import type { BoughtDraft } from './boughtDraft'

/** What buying it cost besides, water added, and the scale it was weighed on. */
const props = defineProps<{ stem: string }>()
const draft = defineModel<BoughtDraft>('draft', { required: true })
const at = (name: string): string => `${props.stem}${name}`
</script>

<template>
  <FoldAway
    class="more"
    :open="Boolean(draft.extras.length || draft.solution || draft.scale)"
    word="More: delivery, added water, scale used"
  >
    <div class="lines">
      <div v-for="(extra, index) in draft.extras" :key="index" class="row">
        <TypedInput
          v-model="extra.what"
          label="What for"
          :path="at(`extras[${index}].what`)"
          placeholder="delivery"
          :suggestions="['delivery', 'tax', 'the trip']"
        />
        <TypedInput
          v-model="extra.cost"
          label="Cost"
          :path="at(`extras[${index}].cost`)"
          placeholder="2.00"
          inputmode="decimal"
        />
        <RemoveButton
          :label="`Remove ${extra.what || 'this cost'}`"
          @remove="draft.extras.splice(index, 1)"
        />
      </div>
      <ActButton small @click="draft.extras.push({ what: '', cost: '' })"> + a cost of buying </ActButton>
      <div class="pair">
        <TypedInput
          v-model="draft.solution"
          label="Added solution, % of the meat"
          :path="at('solution')"
          hint="as the label says: “up to 12 % solution”"
          placeholder="12"
          inputmode="decimal"
        />
        <TypedInput
          v-model="draft.scale"
          label="Scale reads in steps of"
          :path="at('scale')"
          hint="leave empty for the kitchen’s scale"
          placeholder="5 g"
        />
      </div>
    </div>
  </FoldAway>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 120px 36px;
  gap: 8px;
}

.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 8px 14px;
}
</style>
