<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import AlarmSound from '@/shared/alarms/AlarmSound.vue'
import { useAlarms } from '@/shared/alarms/useAlarms'
import { useToday } from '@/shared/api/useBatch'
import { useSession } from '@/shared/api/useSession'
import { useOutbox } from '@/shared/outbox/outbox'
import { moneyPlaces, places } from './places'

const route = useRoute()
const { kitchen, session, signOut, choose, seesMoney } = useSession()
const router = useRouter()
const kitchens = computed(() => session.value?.kitchens ?? [])
function switchTo(slug: string | undefined): void {
  if (!slug) return
  choose(slug)
  void router.push({ name: 'today' })
}
const today = useToday()
const { waiting, refused } = useOutbox()
const isAsked = ref(false)
const unsent = computed(() => waiting.value.length + refused.value.length)
const shown = computed(() => places.filter((one) => seesMoney.value || !moneyPlaces.has(one.name)))
const here = computed(() => route.meta['place'])
const { loud, alarms, pieces } = useAlarms()
/** What hangs in fires and chambers is counted there; elsewhere what batches say. */
const hanging = (name: string): number =>
  name === 'fire' ? pieces.value : (today.data.value?.hanging?.[name] ?? 0)
const isCalling = (name: string): boolean => name === 'fire' && loud.value.length > 0

async function leave(): Promise<void> {
  isAsked.value = unsent.value > 0
  if (!isAsked.value) await signOut()
}
function labelOf(place: (typeof places)[number]): string {
  const count = hanging(place.hangs)
  const calls = place.name === 'fire' && alarms.value.length ? `, alarms: ${alarms.value.length}` : ''
  if (!count) return place.word + calls
  const what = place.name === 'today' ? 'under way' : count === 1 ? 'piece here' : 'pieces here'
  return `${place.word}, ${count} ${what}${calls}`
}
</script>

<template>
  <header class="rail">
    <AlarmSound />
    <div class="inner">
      <span class="name">Dolmetsch</span>
      <nav aria-label="Places">
        <RouterLink
          v-for="place in shown"
          :key="place.name"
          :to="{ name: place.name }"
          :class="{ here: place.name === here }"
          :aria-current="place.name === here ? 'page' : undefined"
          :aria-label="labelOf(place)"
          :title="labelOf(place)"
        >
          <span class="hook" :class="{ full: hanging(place.hangs) > 0, calling: isCalling(place.name) }">
            {{ isCalling(place.name) ? '▲' : hanging(place.hangs) || '' }}
          </span>
          <span>{{ place.word }}</span>
        </RouterLink>
      </nav>
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
        <RouterLink :to="{ name: 'kitchen' }" :aria-current="here === 'kitchen' ? 'page' : undefined"
          >Kitchen<span v-if="kitchens.length === 1" class="wide"> · {{ kitchen?.name }}</span></RouterLink
        >
        <ActButton quiet class="leave" @click="leave">
          {{ session?.tablet ? `Hand over, ${session.name}` : `Sign out ${session?.name}` }}
        </ActButton>
      </div>
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
  grid-template-columns: 190px minmax(0, 1fr) 190px;
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

nav {
  position: relative;
  display: flex;
  justify-content: space-between;
}

nav::before {
  content: '';
  position: absolute;
  inset: 20px 0 auto;
  border-top: 3px solid #566064;
}

nav a {
  flex: 1 1 0;
  display: grid;
  justify-items: center;
  gap: 6px;
  padding: 9px 0 12px;
  text-decoration: none;
  font-weight: 600;
  font-size: 14px;
  font-stretch: 92%;
  border-bottom: 4px solid transparent;
}

nav a.here {
  color: #ffffff;
  border-bottom-color: var(--rose-dark);
}

.hook {
  position: relative;
  width: 24px;
  height: 24px;
  border-radius: 50%;
  border: 3px solid #566064;
  background: var(--rail);
  font-size: 12px;
  line-height: 18px;
  text-align: center;
  font-weight: 750;
}

.hook.full {
  background: #f2f5f3;
  border-color: #f2f5f3;
  color: #1b1f1e;
}

.here .hook {
  background: var(--rose-dark);
  border-color: var(--rose-dark);
  color: #1b1f1e;
}

.hook.calling {
  background: #ffd489;
  border-color: #ffd489;
  color: #5a1420;
}

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

.rail :focus-visible {
  outline-color: #ffffff;
}

@media (max-width: 719px) {
  .inner {
    display: flex;
    justify-content: space-between;
    align-items: center;
    height: 52px;
    padding: 0 12px;
  }

  .name {
    padding: 0;
    font-size: 18px;
  }

  .who {
    display: flex;
    align-items: center;
    padding: 0;
    gap: 16px;
  }

  .who a {
    padding: 12px 0;
  }

  nav {
    position: fixed;
    inset: auto 0 0;
    z-index: 5;
    background: var(--rail);
    border-top: 2px solid #161b1d;
    padding-bottom: env(safe-area-inset-bottom);
  }

  nav::before {
    inset: 17px 0 auto;
  }

  nav a {
    font-size: 13px;
    font-stretch: 80%;
    gap: 2px;
    padding: 8px 0 6px;
  }

  .wide {
    display: none;
  }

  .hook {
    width: 20px;
    height: 20px;
    line-height: 14px;
    font-size: 11px;
  }
}
</style>
