<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { type Problem, refusal } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SignInForm from '@/shared/frame/SignInForm.vue'

/** The door: look around, start a kitchen, sign in, or come in by a code. */
const { session, signIn } = useSession()
const router = useRouter()
const problem = ref<Problem | null>(null)
const code = ref('')

async function lookAround(): Promise<void> {
  const demo = session.value?.demo
  if (demo) problem.value = await refusal(() => signIn(demo.username, demo.password))
}
function comeIn(): void {
  const typed = code.value.trim()
  if (typed) void router.push({ name: 'join', params: { code: typed } })
}
</script>

<template>
  <div class="door">
    <header>
      <h1>Dolmetsch</h1>
      <p class="quiet">What house-cured meat really costs, from the price tag to the slice.</p>
    </header>
    <ProblemNote v-if="problem" :problem="problem" />
    <section v-if="session?.demo || session?.may_start" class="ways" aria-label="Begin">
      <ActButton v-if="session?.demo" card class="way" @click="lookAround">
        <b>Look around in the demo</b>
        <span>The Salt Lantern Canteen: a made-up kitchen with bacon, hams and a year of records.</span>
      </ActButton>
      <ActLink v-if="session?.may_start" card class="way" first :to="{ name: 'new-kitchen' }">
        <b>Start your kitchen</b>
        <span>Your units and currency, your fridges and smoker. Two minutes.</span>
      </ActLink>
    </section>
    <div class="in">
      <section class="panel">
        <h2>Sign in</h2>
        <SignInForm />
        <p class="small quiet">
          Forgot your password? An owner of your kitchen makes you a link for a new one.
        </p>
      </section>
      <form class="panel code" @submit.prevent="comeIn">
        <h2>Invited?</h2>
        <TypedInput v-model="code" label="The code you were given" placeholder="K7QM3-XPD2V" />
        <ActButton submit>Open the invitation</ActButton>
      </form>
    </div>
  </div>
</template>

<style scoped>
.door {
  display: grid;
  gap: 16px;
  width: min(760px, 100%);
}

.ways,
.in {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr));
  gap: 16px;
}

.way {
  display: grid;
  gap: 4px;
  padding: 18px;
  border: 1px solid var(--ink);
  border-radius: 4px;
  background: var(--panel);
  color: var(--ink);
  font: inherit;
  text-align: left;
  text-decoration: none;
  cursor: pointer;
  align-content: start;
}

.way b {
  font-size: 19px;
  font-stretch: 110%;
}

.way.first {
  background: var(--rose);
  border-color: var(--rose);
  color: #fff;
}

.in > .panel {
  display: grid;
  gap: 10px;
  align-content: start;
}
</style>
