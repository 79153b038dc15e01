<script setup lang="ts">
import { useDraft } from '@/shared/writing/useDraft'
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import type { Problem } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import type { Hanging, NoteIn } from './useChamber'

/** What is noted of a hanging piece: the air, pH, a fermentation, a cut, taken down. */
const props = defineProps<{ hanging: Hanging[]; unit: 'F' | 'C'; problem: Problem | null }>()
const emit = defineEmits<{ note: [id: number, note: Partial<NoteIn> & { kind: NoteIn['kind'] }] }>()
const id = ref(props.hanging[0]?.id ?? 0)
const kind = ref<NoteIn['kind']>('air')
const { draft: fields, clear } = useDraft('hook', () => ({
  temp: '',
  humidity: '',
  ph: '',
  before: '',
  after: '',
}))
const kinds = {
  air: 'Air',
  ph: 'pH',
  ferment: 'Ferment begun',
  cut: 'Cut, hung back',
  down: 'Taken down',
} as const
const asked = {
  air: ['temp', 'humidity'],
  ph: ['ph'],
  ferment: ['temp'],
  cut: ['before', 'after'],
  down: [],
} as const
const words = {
  temp: `Temperature, °${props.unit}`,
  humidity: 'Humidity, %',
  ph: 'pH',
  before: 'Weighed before the cut',
  after: 'and after it',
} as const
function send(): void {
  const given = Object.fromEntries(asked[kind.value].map((name) => [name, fields[name]]))
  emit('note', id.value, { kind: kind.value, ...given })
  clear()
}
</script>

<template>
  <form v-may:helper class="panel" aria-label="Note" @submit.prevent="send">
    <SelectBox v-model="id" label="Piece">
      <option v-for="one in hanging" :key="one.id" :value="one.id">{{ one.label }}</option>
    </SelectBox>
    <SelectBox v-model="kind" label="What">
      <option v-for="(word, name) in kinds" :key="name" :value="name">{{ word }}</option>
    </SelectBox>
    <TypedInput v-for="name in asked[kind]" :key="name" v-model="fields[name]" :label="words[name]" />
    <ActButton submit>Save</ActButton>
    <ProblemNote v-if="problem" :problem="problem" fields class="wide" />
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px;
  align-items: end;
}

.wide {
  grid-column: 1 / -1;
}
</style>
