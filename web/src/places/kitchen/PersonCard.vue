<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { momentText } from '@/shared/quantity/when'
import { type Role, roles, roleWords } from '@/shared/kitchen/roles'

/** Someone in the kitchen: what they may do, when they recorded last. */
defineProps<{ person: Schemas['PersonOut']; dataLink: string }>()
const emit = defineEmits<{ role: [role: Role]; remove: []; link: [] }>()
const isAsked = ref(false)
</script>

<template>
  <article class="panel person">
    <h2>
      {{ person.name }} <span v-if="person.is_me" class="quiet">(you)</span>
      <span v-if="person.is_locked" class="badge">locked</span>
    </h2>
    <p class="quiet small">
      signs in as {{ person.username }} ·
      {{ person.last_at ? `recorded last ${momentText(person.last_at)}` : 'nothing recorded yet' }}
      <template v-if="person.has_second_factor"> · second factor on</template>
    </p>
    <SelectBox
      class="role"
      :label="`Role of ${person.name}`"
      quiet-label
      :model-value="person.role"
      @update:model-value="emit('role', $event)"
    >
      <option v-for="one in roles" :key="one.value" :value="one.value">{{ one.word }}</option>
    </SelectBox>
    <p class="words small">{{ roleWords[person.role] }}</p>
    <div v-if="!person.is_me" class="acts">
      <ActButton small @click="$emit('link')">Link for a new password</ActButton>
      <ActButton small :href="dataLink">Their data</ActButton>
      <ActButton v-if="!isAsked" small @click="isAsked = true">Remove</ActButton>
      <template v-else>
        <ActButton small first @click="$emit('remove')">
          Remove {{ person.name }} from the kitchen
        </ActButton>
        <ActButton small @click="isAsked = false">No</ActButton>
      </template>
    </div>
  </article>
</template>

<style scoped>
.person {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px;
  gap: 4px 16px;
}

.role {
  grid-area: 1 / 2 / 3 / 3;
}

.words,
.acts {
  grid-column: 1 / -1;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

@media (max-width: 479px) {
  .person {
    grid-template-columns: minmax(0, 1fr);
  }

  .role {
    grid-area: auto;
  }
}
</style>
