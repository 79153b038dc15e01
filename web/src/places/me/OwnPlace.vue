<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Problem, type ProblemError, refusal, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useSession } from '@/shared/api/useSession'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { momentText } from '@/shared/quantity/when'
import { provideFormFacts } from '@/shared/writing/formFacts'
import SecondFactor from './SecondFactor.vue'

/** One's own page: name, password, second factor, devices, the tablet's code, leaving. */
type Own = Schemas['OwnPage']
const slug = useSlug()
const queries = useQueryClient()
const router = useRouter()
const { kitchen, load, become } = useSession()
const { data, error, refetch } = useQuery<Own, ProblemError>({
  queryKey: ['own'],
  queryFn: () => take(api.GET('/api/own')),
  gcTime: 0,
})
const name = ref('')
const password = ref('')
const fresh = ref('')
const code = ref('')
const said = ref('')
const isLeaving = ref(false)
const problem = ref<Problem | null>(null)
provideFormFacts({ preview: ref(null), problem })
watch(data, (now) => now && (name.value = now.name), { immediate: true })
const here = computed(() => ({ params: { path: { kitchen_slug: slug.value } } }))

async function ask(work: () => Promise<unknown>, words: string): Promise<void> {
  said.value = ''
  problem.value = await refusal(async () => {
    await work()
    said.value = words
  })
}
const put = (own: Own): void => void queries.setQueryData(['own'], own)
const saveName = () =>
  ask(async () => {
    put(await take(api.PUT('/api/own/name', { body: { name: name.value } })))
    await load()
  }, 'Your name is saved.')
const savePassword = () =>
  ask(async () => {
    put(await take(api.PUT('/api/own/password', { body: { password: password.value, new: fresh.value } })))
    password.value = fresh.value = ''
    await load()
  }, 'Your password is changed; other devices are signed out.')
const saveCode = () =>
  ask(async () => {
    const body = { code: code.value }
    await take(api.PUT('/api/kitchens/{kitchen_slug}/tablet-code', { ...here.value, body }))
    code.value = ''
  }, 'Your code for the kitchen tablet is saved.')
const endDevice = (id: number) =>
  ask(
    async () =>
      put(await take(api.DELETE('/api/own/devices/{device_id}', { params: { path: { device_id: id } } }))),
    'Signed out there.',
  )
const leave = () =>
  ask(async () => {
    become(await take(api.DELETE('/api/kitchens/{kitchen_slug}/people', here.value)))
    await router.push('/')
  }, '')
</script>

<template>
  <div class="head">
    <h1>My page</h1>
  </div>
  <ProblemNote v-if="problem" :problem="problem" />
  <p v-if="said" class="good" role="status"><span aria-hidden="true">✓</span> {{ said }}</p>
  <LoadState v-if="!data" :error="error" what="your page" @retry="refetch()" />
  <div v-else class="own">
    <form class="panel lines" novalidate @submit.prevent="saveName">
      <h2>Name</h2>
      <TypedInput v-model="name" label="What the others call you" path="name" autocomplete="given-name" />
      <p class="small quiet">You sign in as {{ data.username }}.</p>
      <ActButton submit>Save the name</ActButton>
    </form>
    <form class="panel lines" novalidate @submit.prevent="savePassword">
      <h2>Password</h2>
      <TypedInput
        v-model="password"
        label="Current password"
        path="password"
        password
        autocomplete="current-password"
      />
      <TypedInput
        v-model="fresh"
        label="New password"
        path="new"
        password
        autocomplete="new-password"
        hint="12 letters or more, not a common one"
      />
      <ActButton submit>Change the password</ActButton>
    </form>
    <SecondFactor :own="data" @changed="refetch()" />
    <section class="panel lines">
      <h2>Where you are signed in</h2>
      <div v-for="one in data.devices" :key="one.id" class="row">
        <span>
          <b>{{ one.name }}</b>
          <span v-if="one.tablet_of"> (tablet of {{ one.tablet_of }})</span>
          <span class="quiet small"> used {{ momentText(one.last_at) }} · {{ one.address }}</span>
        </span>
        <span v-if="one.is_here" class="badge">this one</span>
        <ActButton v-else small @click="endDevice(one.id)">Sign out there</ActButton>
      </div>
    </section>
    <form class="panel lines" novalidate @submit.prevent="saveCode">
      <h2>Kitchen tablet</h2>
      <TypedInput
        v-model="code"
        label="Your code, 4 to 8 digits"
        path="code"
        inputmode="numeric"
        password
        hint="by which you say who you are on the kitchen’s tablet; empty: none"
      />
      <ActButton submit>Save the code</ActButton>
    </form>
    <section class="panel lines">
      <h2>Leaving and your data</h2>
      <ActButton href="/api/own/data">Download what is kept about me</ActButton>
      <p class="small quiet">What you recorded stays under your name when you leave {{ kitchen?.name }}.</p>
      <ActButton v-if="!isLeaving" @click="isLeaving = true">Leave the kitchen</ActButton>
      <template v-else>
        <ActButton first @click="leave">Leave {{ kitchen?.name }}</ActButton>
        <ActButton @click="isLeaving = false">Stay</ActButton>
      </template>
    </section>
  </div>
</template>

<style scoped>
.own {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(360px, 100%), 1fr));
  gap: 16px;
  align-items: start;
}

.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
}

.row > :first-child {
  flex: 1 1 200px;
}
</style>
