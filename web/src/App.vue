<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { NConfigProvider } from 'naive-ui'
import { onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { isOpening } from './router'
import { ownerKey } from './shared/api/owner'
import { useSession } from './shared/api/useSession'
import OutboxSign from './shared/outbox/OutboxSign.vue'
import { useArrivals } from './shared/outbox/useArrivals'
import KeysHelp from './shared/ui/KeysHelp.vue'
import ProblemNote from './shared/ui/ProblemNote.vue'
import Rail from './shared/ui/Rail.vue'
import SignInAgain from './shared/ui/SignInAgain.vue'
import SignInForm from './shared/ui/SignInForm.vue'
import { useKeys } from './shared/ui/useKeys'
import { hasTyped } from './shared/writing/typed'
import { theme } from './theme'

const { session, kitchen, problem, load } = useSession()
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const keysShown = ref(false)

onMounted(load)
// another cook sees nothing of what the one before had open; a page open to all is nobody's
watch(ownerKey, () => {
  if (!route.meta.open) queries.clear()
})
useArrivals()
useKeys({
  '?': () => (keysShown.value = true),
  n: () => void router.push({ name: 'start' }),
  t: () => void router.push({ name: 'today' }),
  Escape: () => {
    if (hasTyped()) return
    if (router.options.history.state['back']) router.back()
  },
})
</script>

<template>
  <NConfigProvider :theme-overrides="theme" preflight-style-disabled>
    <main v-if="route.meta.open" class="page"><RouterView /></main>
    <main v-else-if="!session" class="page gate">
      <ProblemNote v-if="problem" :problem="problem" retry-word="Try again" @retry="load" />
      <p v-else role="status">Opening the kitchen …</p>
    </main>
    <main v-else-if="!session.signed_in" class="page gate">
      <div class="panel">
        <h1>Dolmetsch</h1>
        <p class="quiet">What house-cured meat really costs, from the price tag to the slice.</p>
        <SignInForm />
      </div>
    </main>
    <template v-else>
      <p v-if="isOpening" class="opening" role="status">Opening …</p>
      <a class="unseen skip" href="#place">Skip to the content</a>
      <Rail v-if="!route.meta.bare" />
      <OutboxSign v-if="!route.meta.bare" />
      <main id="place" :class="{ page: !route.meta.bare }" tabindex="-1">
        <RouterView v-if="kitchen" v-slot="{ Component, route: shown }">
          <component :is="Component" :key="`${ownerKey()} ${shown.path}`" />
        </RouterView>
        <p v-else class="panel">You are signed in, but belong to no kitchen yet. Ask its owner to add you.</p>
      </main>
      <SignInAgain />
      <KeysHelp v-model:shown="keysShown" />
    </template>
  </NConfigProvider>
</template>

<style scoped>
.gate {
  min-height: 100vh;
  display: grid;
  place-items: center;
}

.gate .panel {
  display: grid;
  gap: 12px;
  width: min(420px, 100%);
  padding: 24px;
}

main:focus {
  outline: none;
}

.opening {
  position: fixed;
  inset: 0 auto auto 50%;
  transform: translateX(-50%);
  z-index: 9;
  padding: 4px 16px;
  background: var(--care-ground);
  border-radius: 0 0 4px 4px;
}

.skip:focus {
  position: fixed;
  inset: 8px auto auto 8px;
  z-index: 9;
  width: auto;
  height: auto;
  clip-path: none;
  margin: 0;
  padding: 8px 14px;
  background: var(--panel);
}
</style>
