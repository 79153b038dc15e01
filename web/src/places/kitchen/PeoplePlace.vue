<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { computed, ref } from 'vue'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useSession } from '@/shared/api/useSession'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { momentText } from '@/shared/quantity/when'
import InviteForm from './InviteForm.vue'
import LinkCard from './LinkCard.vue'
import PersonCard from './PersonCard.vue'
import type { Role } from '@/shared/kitchen/roles'

/** Who is in the kitchen, as what; who is invited; who was. */
type People = Schemas['PeopleOut']
type Person = Schemas['PersonOut']
const slug = useSlug()
const { load, become } = useSession()
const kitchen = computed(() => ({ kitchen_slug: slug.value }))
const { data, error, refetch, put } = useKitchenQuery('people', '/people')
const problem = ref<Problem | null>(null)
const link = ref<{ link: Schemas['LinkOut']; words: string } | null>(null)

async function change(ask: () => Promise<People>): Promise<void> {
  problem.value = await refusal(async () => {
    put(await ask())
    // one's own role may have changed
    await load()
  })
}
const of = (one: Person) => ({ params: { path: { ...kitchen.value, member_id: one.id } } })
const setRole = (one: Person, role: Role) =>
  change(() =>
    take(api.PUT('/api/kitchens/{kitchen_slug}/people/{member_id}/role', { ...of(one), body: { role } })),
  )
const remove = (one: Person) =>
  change(() => take(api.DELETE('/api/kitchens/{kitchen_slug}/people/{member_id}', of(one))))
const removeName = (one: Person) =>
  change(() => take(api.DELETE('/api/kitchens/{kitchen_slug}/people/{member_id}/name', of(one))))
const withdraw = (id: number) =>
  change(() =>
    take(
      api.DELETE('/api/kitchens/{kitchen_slug}/invitations/{invitation_id}', {
        params: { path: { ...kitchen.value, invitation_id: id } },
      }),
    ),
  )
async function linkFor(one: Person): Promise<void> {
  problem.value = await refusal(async () => {
    const made = await take(
      api.POST('/api/kitchens/{kitchen_slug}/people/{member_id}/password-link', of(one)),
    )
    link.value = { link: made, words: `A new password for ${one.name}` }
  })
}
function invited(made: Schemas['LinkOut'], words: string): void {
  link.value = { link: made, words }
  void refetch()
}
async function makeTablet(): Promise<void> {
  problem.value = await refusal(async () => {
    become(await take(api.POST('/api/kitchens/{kitchen_slug}/tablet', { params: { path: kitchen.value } })))
  })
}
const dataOf = (one: Person): string => `/api/kitchens/${slug.value}/people/${one.id}/data`
</script>

<template>
  <div class="head">
    <h1>People</h1>
  </div>
  <ProblemNote v-if="problem" :problem="problem" />
  <LoadState v-if="!data" :error="error" what="the people" @retry="refetch()" />
  <div v-else class="columns">
    <section class="lines" aria-label="In the kitchen">
      <PersonCard
        v-for="one in data.people"
        :key="one.id"
        :person="one"
        :data-link="dataOf(one)"
        @role="(role) => setRole(one, role)"
        @remove="remove(one)"
        @link="linkFor(one)"
      />
      <template v-if="data.former.length">
        <h2>Former members</h2>
        <div v-for="one in data.former" :key="one.id" class="panel former">
          <span>
            <b>{{ one.name }}</b>
            <span v-if="one.left_at" class="quiet small"> left {{ momentText(one.left_at) }}</span>
          </span>
          <ActButton small :href="dataOf(one)">Their data</ActButton>
          <ActButton v-if="!one.is_locked" small @click="removeName(one)"> Remove their name </ActButton>
        </div>
      </template>
    </section>
    <aside class="lines">
      <LinkCard v-if="link" :link="link.link" :words="link.words" @close="link = null" />
      <InviteForm @invited="invited" />
      <section v-if="data.invitations.length" class="panel lines">
        <h2>Invited, not here yet</h2>
        <div v-for="one in data.invitations" :key="one.id" class="former">
          <span>
            <b>{{ one.called || 'Someone' }}</b> as {{ one.role }}
            <span class="quiet small">until {{ momentText(one.ends_at) }}</span>
          </span>
          <ActButton small @click="withdraw(one.id)">Withdraw</ActButton>
        </div>
      </section>
      <section class="panel lines">
        <h2>Kitchen tablet</h2>
        <p class="small">
          A device that stays on in the kitchen: whoever works there says who they are by a short code, set on
          their own page. You are signed out on it.
        </p>
        <p v-if="data.tablets.length" class="small quiet">Now: {{ data.tablets.join(', ') }}</p>
        <ActButton @click="makeTablet">Make this device the tablet</ActButton>
      </section>
    </aside>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}

.former {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
}

.former > :first-child {
  flex: 1 1 160px;
}

@media (max-width: 819px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
