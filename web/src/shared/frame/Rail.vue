<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed, ref } from 'vue'
import AlarmSound from '@/shared/alarms/AlarmSound.vue'
import { useSession } from '@/shared/api/useSession'
import { useOutbox } from '@/shared/outbox/outbox'
import RailPlaces from './RailPlaces.vue'
import RailWho from './RailWho.vue'

/** Over every page: the places, the kitchen, and who is signed in. */
const { signOut } = useSession()
const { waiting, refused } = useOutbox()
const isAsked = ref(false)
const unsent = computed(() => waiting.value.length + refused.value.length)
async function leave(): Promise<void> {
  isAsked.value = unsent.value > 0
  if (!isAsked.value) await signOut()
}
</script>

<template>
  <header class="rail">
    <AlarmSound />
    <div class="inner">
      <span class="name">Dolmetsch</span>
      <RailPlaces />
      <RailWho @leave="leave" />
    </div>
    <div v-if="isAsked && unsent" class="unsent on-bar" role="alert">
      <p>
        {{ unsent === 1 ? '1 record has' : `${unsent} records have` }} not been sent. They stay on this device
        and are sent when you sign in here again.
      </p>
      <ActButton @click="signOut">Sign out anyway</ActButton>
      <ActButton @click="isAsked = false">Stay signed in</ActButton>
    </div>
  </header>
</template>

<style scoped>
.rail {
  background: var(--rail);
  color: #c9d1ce;
  border-bottom: 4px solid #161b1d;
}

.inner {
  max-width: 1280px;
  margin: 0 auto;
  padding: 0 24px;
  height: 74px;
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) minmax(190px, auto);
  align-items: end;
}

.unsent {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 8px 24px;
  background: #3a2c0f;
  color: #ffd489;
}

.unsent p {
  flex: 1 1 300px;
}

.name {
  font-weight: 800;
  font-stretch: 118%;
  font-size: 20px;
  color: #f2f5f3;
  padding-bottom: 16px;
}

.rail :deep(:focus-visible) {
  outline-color: #ffffff;
}

@media (max-width: 719px) {
  .inner {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 10px;
    height: 52px;
    padding: 0 12px;
  }

  .name {
    padding: 0;
    font-size: 18px;
  }
}
</style>
