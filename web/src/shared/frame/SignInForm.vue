<script setup lang="ts">
import { NButton } from 'naive-ui'
import { reactive, ref } from 'vue'
import { type Problem, refusal } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'

const { signIn } = useSession()
const typed = reactive({ username: '', password: '', code: '' })
/** Name and password were right, and a second factor is asked for. */
const asksCode = ref(false)
const problem = ref<Problem | null>(null)
const busy = ref(false)

async function send(): Promise<void> {
  busy.value = true
  problem.value = await refusal(() => signIn(typed.username.trim(), typed.password, typed.code))
  if (problem.value?.code === 'code_needed') asksCode.value = true
  busy.value = false
}
</script>

<template>
  <form class="form" @submit.prevent="send">
    <TypedInput v-model="typed.username" label="Name" path="username" autocomplete="username" />
    <TypedInput
      v-model="typed.password"
      label="Password"
      path="password"
      password
      autocomplete="current-password"
    />
    <TypedInput
      v-if="asksCode"
      v-model="typed.code"
      label="Code of your app, or a recovery code"
      path="code"
      autocomplete="one-time-code"
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
</style>
