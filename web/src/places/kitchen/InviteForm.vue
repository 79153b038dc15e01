<script setup lang="ts">
import { useDraft } from '@/shared/writing/useDraft'
import ActButton from '@/shared/ui/ActButton.vue'
import { ref } from 'vue'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useSession } from '@/shared/api/useSession'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import { type Role, roles, roleWords } from '@/shared/kitchen/roles'

/** Invite someone: the link and the code are shown once. */
const emit = defineEmits<{ invited: [link: Schemas['LinkOut'], words: string] }>()
const slug = useSlug()
const { session } = useSession()
const { draft } = useDraft('invitation', () => ({ called: '', role: 'cook' as Role, mail: '' }))
const problem = ref<Problem | null>(null)
provideFormFacts({ preview: ref(null), problem })

async function send(): Promise<void> {
  problem.value = await refusal(async () => {
    const params = { path: { kitchen_slug: slug.value } }
    const made = await take(
      api.POST('/api/kitchens/{kitchen_slug}/invitations', { params, body: { ...draft } }),
    )
    emit('invited', made, `${draft.called || 'Someone'} comes in as ${draft.role}`)
    // the next one often comes in as the same
    draft.called = draft.mail = ''
  })
}
</script>

<template>
  <form class="panel lines" novalidate @submit.prevent="send">
    <h2>Invite someone</h2>
    <TypedInput v-model="draft.called" label="Their name" path="called" />
    <ChoiceBar v-model="draft.role" label="As" :choices="roles" />
    <p class="small quiet">{{ roleWords[draft.role] }}</p>
    <TypedInput
      v-if="session?.mail"
      v-model="draft.mail"
      label="Mail address, if it is to be sent"
      path="mail"
      autocomplete="email"
    />
    <ProblemNote v-if="problem" :problem="problem" />
    <ActButton first submit>Make the invitation</ActButton>
  </form>
</template>
