<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ActLink from '@/shared/ui/ActLink.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { NConfigProvider } from 'naive-ui'
import { onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { isOpening, notLoaded } from './router'
import { ownerKey } from './shared/api/owner'
import { useSession } from './shared/api/useSession'
import OutboxSign from './shared/outbox/OutboxSign.vue'
import { useArrivals } from './shared/outbox/useArrivals'
import ErrorBoundary from './shared/frame/ErrorBoundary.vue'
import KeysHelp from './shared/frame/KeysHelp.vue'
import ProblemNote from './shared/ui/ProblemNote.vue'
import PlaceTabs from './shared/frame/PlaceTabs.vue'
import Rail from './shared/frame/Rail.vue'
import SignInAgain from './shared/frame/SignInAgain.vue'
import { moneyPlaces } from './shared/frame/places'
import { useKeys, useLinkKeys } from './shared/frame/useKeys'
import { hasTyped } from './shared/writing/typed'
import FirstPage from './places/door/FirstPage.vue'
import TabletGate from './places/door/TabletGate.vue'
import KitchenNotes from './shared/kitchen/KitchenNotes.vue'
import { whoMay } from './shared/kitchen/roles'
import { theme } from './theme'

const { session, kitchen, problem, load, seesMoney, may } = useSession()
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const keysShown = ref(false)
const reload = (): void => location.assign(notLoaded.value)

onMounted(load)
// another cook sees nothing of what the one before had open; a page open to all is nobody's
watch(ownerKey, () => {
  if (!route.meta.open) queries.clear()
})
useArrivals()
useLinkKeys({ n: 'start', t: 'today' })
useKeys({
  '?': () => (keysShown.value = true),
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
      <TabletGate v-if="session.tablet" />
      <FirstPage v-else />
    </main>
    <template v-else>
      <p v-if="isOpening" class="opening" role="status">Opening …</p>
      <p v-if="notLoaded" class="panel on-bar" role="alert">
        The page asked for could not be loaded: there is no connection, or Dolmetsch was brought up to date.
        <ActButton small @click="reload">Reload</ActButton>
      </p>
      <a class="unseen skip" href="#place">Skip to the content</a>
      <Rail v-if="!route.meta.bare" />
      <OutboxSign v-if="!route.meta.bare" />
      <KitchenNotes v-if="!route.meta.bare" />
      <main id="place" :class="{ page: !route.meta.bare }" tabindex="-1">
        <PlaceTabs v-if="kitchen && !route.meta.bare" />
        <p v-if="kitchen && !seesMoney && moneyPlaces.has(route.meta['place'])" class="panel">
          The owner of this kitchen keeps prices from helpers.
        </p>
        <p v-else-if="kitchen && route.meta.least && !may(route.meta.least)" class="panel">
          {{ route.meta.title }}: that is for {{ whoMay[route.meta.least] }}. You are a {{ kitchen.role }} in
          {{ kitchen.name }}.
          <RouterLink :to="{ name: 'today' }">Today</RouterLink>
        </p>
        <RouterView v-else-if="kitchen" v-slot="{ Component, route: shown }">
          <ErrorBoundary :key="`${ownerKey()} ${shown.path}`">
            <component :is="Component" />
          </ErrorBoundary>
        </RouterView>
        <div v-else class="panel lines">
          <h1>No kitchen yet</h1>
          <p>You are signed in, and in no kitchen. Open an invitation, or start one of your own.</p>
          <ActLink v-if="session.may_start" first :to="{ name: 'new-kitchen' }">Start a kitchen</ActLink>
        </div>
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
