<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { momentText } from '@/shared/quantity/when'
import { type Role, roles, roleWords } from '@/shared/kitchen/roles'

/** Someone in the kitchen: what they may do, when they recorded last. */
const props = defineProps<{ person: Schemas['PersonOut']; dataLink: string }>()
const emit = defineEmits<{ role: [role: Role]; remove: []; link: [] }>()
const isAsked = ref(false)
function setRole(event: Event): void {
  const picked = event.target as HTMLSelectElement
  emit('role', picked.value as Role)
  // as it is until the server has said yes
  picked.value = props.person.role
}
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
    <label class="role">
      <span class="unseen">Role of {{ person.name }}</span>
      <select class="box" :value="person.role" @change="setRole">
        <option v-for="one in roles" :key="one.value" :value="one.value">{{ one.word }}</option>
      </select>
    </label>
    <p class="words small">{{ roleWords[person.role] }}</p>
    <div v-if="!person.is_me" class="acts">
      <button type="button" class="act small" @click="$emit('link')">Link for a new password</button>
      <a class="act small" :href="dataLink">Their data</a>
      <button v-if="!isAsked" type="button" class="act small" @click="isAsked = true">Remove</button>
      <template v-else>
        <button type="button" class="act small first" @click="$emit('remove')">
          Remove {{ person.name }} from the kitchen
        </button>
        <button type="button" class="act small" @click="isAsked = false">No</button>
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

.role select {
  width: 100%;
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
