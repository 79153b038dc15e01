<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useSession } from '@/shared/api/useSession'

/** Whose kitchen it is and who is signed in. */
defineEmits<{ leave: [] }>()
const { kitchen, session, choose } = useSession()
const route = useRoute()
const router = useRouter()
const kitchens = computed(() => session.value?.kitchens ?? [])
function switchTo(slug: string | undefined): void {
  if (!slug) return
  choose(slug)
  void router.push({ name: 'today' })
}
</script>

<template>
  <div class="who">
    <SelectBox
      v-if="kitchens.length > 1"
      class="switch"
      label="Kitchen"
      quiet-label
      :model-value="kitchen?.slug"
      @update:model-value="switchTo"
    >
      <option v-for="one in kitchens" :key="one.slug" :value="one.slug">{{ one.name }}</option>
    </SelectBox>
    <RouterLink :to="{ name: 'kitchen' }" :aria-current="route.meta.place === 'kitchen' ? 'page' : undefined"
      >Kitchen<span v-if="kitchens.length === 1" class="wide"> · {{ kitchen?.name }}</span></RouterLink
    >
    <ActButton quiet class="leave" @click="$emit('leave')">
      {{ session?.tablet ? `Hand over, ${session.name}` : `Sign out ${session?.name}` }}
    </ActButton>
  </div>
</template>

<style scoped>
.who {
  display: grid;
  justify-items: end;
  gap: 2px;
  font-size: 14px;
  font-stretch: 90%;
  padding-bottom: 10px;
}

.who .leave {
  --n-text-color: #c9d1ce !important;
  --n-text-color-hover: #ffffff !important;
  --n-text-color-focus: #c9d1ce !important;
  --n-color-hover: transparent !important;
  --n-height: 32px !important;
  --n-padding: 0 !important;
  font-weight: 400;
  text-decoration: underline;
}

.who a {
  color: inherit;
  padding: 2px 0;
}

/* beside the links, not over them: the rail has room for two lines */
.switch {
  grid-column: 1;
  grid-row: 1 / 3;
  width: 150px;
  margin-right: 10px;
}

.switch ~ * {
  grid-column: 2;
}

@media (max-width: 719px) {
  .switch {
    width: auto;
    min-width: 0;
    margin: 0;
  }

  .who {
    display: flex;
    align-items: center;
    padding: 0;
    gap: 10px;
  }

  .who a {
    padding: 12px 0;
  }

  .wide {
    display: none;
  }
}
</style>
