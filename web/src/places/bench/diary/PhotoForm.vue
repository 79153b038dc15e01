<script setup lang="ts">
import ChooseFile from '@/shared/ui/ChooseFile.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import { api, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useWrite } from '@/shared/writing/useWrite'

/** A photo from the camera or a file; it is scaled and stripped of place and camera on the way in. */
const props = defineProps<{ code: string; pieces: string[] }>()
const emit = defineEmits<{ kept: [diary: Schemas['DiaryOut']] }>()
const kitchen_slug = useSlug()
const mark = ref('')
const note = ref('')

const file = ref<File | null>(null)
type Sent = { name: string; size: number; changed: number; mark: string; note: string }
const { state, problem, write, retry, reset } = useWrite<Sent, Schemas['DiaryOut']>(
  `${props.code}:photo`,
  (sent, key) => {
    const body = new FormData()
    if (file.value) body.append('file', file.value)
    body.append('mark', sent.mark)
    body.append('note', sent.note)
    return take(
      api.POST('/api/kitchens/{kitchen_slug}/batches/{code}/photos', {
        params: {
          path: { kitchen_slug: kitchen_slug.value, code: props.code },
          header: { 'Idempotency-Key': key },
        },
        body: body as unknown as { file: string; mark: string; note: string },
        bodySerializer: () => body,
      }),
    )
  },
)
function choose(chosen: File): void {
  file.value = chosen
  reset()
}
function send(): void {
  const now = file.value
  if (!now) return
  const sent = {
    name: now.name,
    size: now.size,
    changed: now.lastModified,
    mark: mark.value,
    note: note.value,
  }
  void write(sent, (diary) => {
    note.value = ''
    file.value = null
    emit('kept', diary)
  })
}
</script>

<template>
  <form v-may:helper @submit.prevent="send">
    <ChooseFile
      :word="file ? file.name : 'Add a photo'"
      accept="image/jpeg,image/png,image/webp"
      @choose="choose"
    />
    <p class="quiet small">JPEG, PNG or WebP up to 15 MB; location and camera data are removed.</p>
    <template v-if="file">
      <TypedInput v-model="note" label="What it shows" maxlength="200" />
      <div class="line">
        <SelectBox v-model="mark" label="Of which piece" quiet-label>
          <option value="">the whole batch</option>
          <option v-for="one in pieces" :key="one" :value="one">piece {{ one }}</option>
        </SelectBox>
        <ActButton first submit :disabled="state === 'saving'">
          {{ state === 'saving' ? 'Sending …' : 'Save the photo' }}
        </ActButton>
      </div>
    </template>
    <ProblemNote
      v-if="problem"
      :problem="problem"
      :retry-word="state === 'failed' ? 'Try again' : ''"
      @retry="retry"
    />
    <p v-if="state === 'saved'" class="good" role="status">✓ Saved.</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}

.file {
  padding: 9px;
}

.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
}
</style>
