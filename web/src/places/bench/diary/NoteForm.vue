<script setup lang="ts">
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
    <label class="named">
      <span>Add a note</span>
      <textarea v-model="draft.text" class="box" rows="3" maxlength="2000" @input="said = ''" />
    </label>
    <div class="line">
      <select v-model="draft.mark" class="box" aria-label="About which piece">
        <option value="">the whole batch</option>
        <option v-for="one in pieces" :key="one" :value="one">piece {{ one }}</option>
      </select>
      <button type="submit" class="act first" :disabled="!draft.text.trim()">Save the note</button>
    </div>
    <p v-if="said" class="good" role="status">✓ {{ said }}</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}

textarea {
  padding: 8px 10px;
  resize: vertical;
}

.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
}
</style>
