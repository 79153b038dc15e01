<script setup lang="ts">
import { NButton } from 'naive-ui'
import { reactive, ref } from 'vue'
import { type Problem, refusal } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import ProblemNote from './ProblemNote.vue'
import TypedInput from './TypedInput.vue'

const { session, signIn } = useSession()
const typed = reactive({ username: '', password: '' })
const problem = ref<Problem | null>(null)
const busy = ref(false)

async function send(): Promise<void> {
  busy.value = true
  problem.value = await refusal(() => signIn(typed.username.trim(), typed.password))
  busy.value = false
}
</script>

<template>
  <form class="form" @submit.prevent="send">
    <p v-if="session?.demo" class="demo">
      Demo kitchen: sign in as <b>{{ session.demo.username }}</b> with password
      <b>{{ session.demo.password }}</b>.
    </p>
    <TypedInput v-model="typed.username" label="Name" path="username" autocomplete="username" />
    <TypedInput
      v-model="typed.password"
      label="Password"
      path="password"
      password
      autocomplete="current-password"
    />
    <ProblemNote v-if="problem" :problem="problem" />
    <NButton type="primary" attr-type="submit" :loading="busy">Sign in</NButton>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}

.demo {
  border: 1px solid var(--edge);
  border-left: 6px solid #6f8f8a;
  border-radius: 4px;
  padding: 10px 12px;
}
</style>
