<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { stampNow } from '@/shared/api/deviceClock'
import { vMay } from '@/shared/kitchen/vMay'
import { useSlug } from '@/shared/api/useSlug'
import { post } from '@/shared/outbox/outbox'
import { useDraft } from '@/shared/writing/useDraft'
import { ref } from 'vue'

/** A note: kept on the device until it is sent, so that it can be written without network. */
const props = defineProps<{ code: string; pieces: string[] }>()
const kitchen_slug = useSlug()
const { draft, clear } = useDraft(`${props.code}:note`, () => ({ text: '', mark: '' }))
const said = ref('')
function write(): void {
  if (!draft.text.trim()) return
  post({
    path: `/api/kitchens/${kitchen_slug.value}/batches/${props.code}/notes`,
    body: { text: draft.text.trim(), mark: draft.mark, happened_at: stampNow() },
    words: 'a note',
    code: `a note`,
    mark: '',
  })
  said.value = 'Note saved.'
  clear()
}
</script>

<template>
  <form v-may:helper @submit.prevent="write">
    <TypedInput
      v-model="draft.text"
      label="Add a note"
      type="textarea"
      maxlength="2000"
      @update:model-value="said = ''"
    />
    <div class="line">
      <SelectBox v-model="draft.mark" label="About which piece" quiet-label>
        <option value="">the whole batch</option>
        <option v-for="one in pieces" :key="one" :value="one">piece {{ one }}</option>
      </SelectBox>
      <ActButton first submit :disabled="!draft.text.trim()">Save the note</ActButton>
    </div>
    <p v-if="said" class="good" role="status">✓ {{ said }}</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}

.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
}
</style>
