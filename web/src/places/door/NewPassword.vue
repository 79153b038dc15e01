<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Problem, type ProblemError, refusal, type Schemas, take } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'

/** A new password, by a link that works once. */
const props = defineProps<{ code: string }>()
const { become } = useSession()
const router = useRouter()
const path = computed(() => ({ params: { path: { code: props.code } } }))
const { data, error, refetch } = useQuery<Schemas['PasswordLinkOut'], ProblemError>({
  queryKey: ['password-link', props.code],
  queryFn: () => take(api.GET('/api/password-links/{code}', path.value)),
  retry: false,
})
const typed = ref('')
const problem = ref<Problem | null>(null)
const isDone = ref(false)
provideFormFacts({ preview: ref(null), problem })

async function send(): Promise<void> {
  problem.value = await refusal(async () => {
    await take(api.GET('/api/session'))
    become(await take(api.POST('/api/password-links/{code}', { ...path.value, body: { new: typed.value } })))
    isDone.value = true
  })
}
</script>

<template>
  <div class="link">
    <LoadState v-if="!data" :error="error" what="the link" @retry="refetch()" />
    <section v-else-if="isDone" class="panel lines">
      <h1>New password saved</h1>
      <p>Sign in as {{ data.username }} with it. You are signed out everywhere else.</p>
      <ActButton first @click="router.push('/')">Sign in</ActButton>
    </section>
    <form v-else class="panel lines" novalidate @submit.prevent="send">
      <h1>A new password for {{ data.name }}</h1>
      <TypedInput
        v-model="typed"
        label="New password"
        path="new"
        password
        autocomplete="new-password"
        hint="12 letters or more, not a common one"
      />
      <ProblemNote v-if="problem" :problem="problem" />
      <ActButton first submit>Save the new password</ActButton>
    </form>
  </div>
</template>

<style scoped>
.link {
  width: min(460px, 100%);
  margin: 24px auto;
}
</style>
