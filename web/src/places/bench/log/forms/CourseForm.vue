<script setup lang="ts">
import TickBox from '@/shared/ui/TickBox.vue'
import { computed, ref } from 'vue'
import type { Batch, Content, Entry } from '@/shared/api/client'
import { type Course, courses } from '@/shared/parts/courseWords'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import EntryForm from './EntryForm.vue'

/** What the meat is to become: all of the batch, or pieces that go another way. */
const props = defineProps<{ batch: Batch; correcting: Entry | null }>()
defineEmits<{ recorded: [batch: Batch, words: string] }>()
const was = props.correcting?.content
const course = ref<Course | ''>(was?.act === 'course' ? was.course : '')
const marks = ref<string[]>(was?.act === 'course' ? [...was.pieces] : [])
const choices = [...courses, { value: '' as const, word: 'Not said' }]
const content = computed<Content>(() => ({ act: 'course', course: course.value, pieces: marks.value }))
</script>

<template>
  <EntryForm
    :batch="batch"
    :content="content"
    :correcting="correcting"
    word="Save what it becomes"
    :name="`${batch.code}:course`"
    @recorded="(now, words) => $emit('recorded', now, words)"
  >
    <ChoiceBar v-model="course" label="It becomes" :choices="choices" />
    <fieldset v-if="batch.pieces.length > 1">
      <legend>Only these pieces (none ticked: all of the batch)</legend>
      <TickBox v-for="piece in batch.pieces" :key="piece.mark" v-model="marks" :value="piece.mark">{{
        piece.mark
      }}</TickBox>
    </fieldset>
    <p class="quiet small">Steps, cautions and how long it keeps follow from this.</p>
  </EntryForm>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
}

legend {
  font-weight: 600;
  font-size: 14px;
  padding: 0;
}
</style>
