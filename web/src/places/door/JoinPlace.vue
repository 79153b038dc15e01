<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Problem, type ProblemError, refusal, type Schemas, take } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { momentText } from '@/shared/quantity/when'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { roleWords } from '@/shared/kitchen/roles'
import PersonFields from './PersonFields.vue'

/** An invitation: join as who is signed in, or as a new person. */
const props = defineProps<{ code: string }>()
const { session, become, choose, signOut } = useSession()
const router = useRouter()
const path = computed(() => ({ params: { path: { code: props.code } } }))
const { data, error, refetch } = useQuery<Schemas['InvitedOut'], ProblemError>({
  queryKey: ['invitation', props.code],
  queryFn: () => take(api.GET('/api/invitations/{code}', path.value)),
  retry: false,
})
const draft = ref({ cook: '', username: '', password: '' })
const problem = ref<Problem | null>(null)
const isSending = ref(false)
provideFormFacts({ preview: ref(null), problem })

async function join(body: Schemas['JoinIn']): Promise<void> {
  isSending.value = true
  problem.value = await refusal(async () => {
    await take(api.GET('/api/session'))
    const joined = await take(api.POST('/api/invitations/{code}', { ...path.value, body }))
    choose(joined.slug)
    become(joined.session)
    await router.push({ name: 'today' })
  })
  isSending.value = false
}
</script>

<template>
  <div class="join">
    <LoadState v-if="!data" :error="error" what="the invitation" @retry="refetch()" />
    <section v-else class="panel lines">
      <h1>{{ data.kitchen }}</h1>
      <p>
        {{ data.made_by }} invites {{ data.called || 'you' }} as <b>{{ data.role }}</b>:
        {{ roleWords[data.role] }}
      </p>
      <p class="small quiet">Works once, until {{ momentText(data.ends_at) }}.</p>
      <template v-if="session?.signed_in">
        <p>You are signed in as {{ session.name }} on this device.</p>
        <ProblemNote v-if="problem" :problem="problem" />
        <ActButton first :disabled="isSending" @click="join(draft)"> Join as {{ session.name }} </ActButton>
        <ActButton @click="signOut">I am someone else: sign out</ActButton>
      </template>
      <form v-else class="lines" novalidate @submit.prevent="join(draft)">
        <PersonFields v-model="draft" :called="data.called" />
        <ProblemNote v-if="problem" :problem="problem" />
        <ActButton first submit :disabled="isSending">Join {{ data.kitchen }}</ActButton>
        <p class="small quiet">
          You sign in here already? <RouterLink to="/">Sign in</RouterLink> first, then open the link again.
        </p>
      </form>
    </section>
  </div>
</template>

<style scoped>
.join {
  width: min(460px, 100%);
  margin: 24px auto;
}
</style>
