<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { ref } from 'vue'
import { api, type Problem, refusal, type Schemas, take } from '@/shared/api/client'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'

/** The second factor: an authenticator app's code beside the password, and recovery codes. */
defineProps<{ own: Schemas['OwnPage'] }>()
const emit = defineEmits<{ changed: [] }>()
const password = ref('')
const code = ref('')
const begun = ref<Schemas['SecondFactorOut'] | null>(null)
const recovery = ref<string[]>([])
const problem = ref<Problem | null>(null)
provideFormFacts({ preview: ref(null), problem })

async function begin(): Promise<void> {
  problem.value = await refusal(async () => {
    begun.value = await take(api.POST('/api/own/second-factor', { body: { password: password.value } }))
    password.value = ''
  })
}
async function confirm(): Promise<void> {
  problem.value = await refusal(async () => {
    const answer = await take(api.PUT('/api/own/second-factor', { body: { code: code.value } }))
    recovery.value = answer.codes
    begun.value = null
    code.value = ''
    emit('changed')
  })
}
async function end(): Promise<void> {
  problem.value = await refusal(async () => {
    await take(api.DELETE('/api/own/second-factor', { body: { password: password.value } }))
    password.value = ''
    recovery.value = []
    emit('changed')
  })
}
</script>

<template>
  <section class="panel lines">
    <h2>Second factor</h2>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="recovery.length">
      <p><b>Write these down.</b> Each opens once, without your phone. They are shown only now.</p>
      <ul class="codes">
        <li v-for="one in recovery" :key="one">{{ one }}</li>
      </ul>
      <ActButton @click="recovery = []">I have written them down</ActButton>
    </template>
    <form v-else-if="begun" class="lines" novalidate @submit.prevent="confirm">
      <p>Scan this with an authenticator app, then type the code it shows.</p>
      <!-- eslint-disable-next-line vue/no-v-html -- drawn by the server from a key it made -->
      <div class="qr" role="img" aria-label="QR code of the key" v-html="begun.qr" />
      <p class="small quiet secret">Or type the key: {{ begun.secret }}</p>
      <TypedInput
        v-model="code"
        label="Code of the app"
        path="code"
        inputmode="numeric"
        autocomplete="one-time-code"
      />
      <ActButton first submit>Turn it on</ActButton>
    </form>
    <form v-else class="lines" novalidate @submit.prevent="own.has_second_factor ? end() : begin()">
      <p v-if="own.has_second_factor">
        On. {{ own.recovery_left }} recovery codes are left. Signing in asks for your app’s code.
      </p>
      <p v-else>Off. With it, nobody signs in by your password alone.</p>
      <TypedInput
        v-model="password"
        label="Your password"
        path="password"
        password
        autocomplete="current-password"
      />
      <ActButton submit>
        {{ own.has_second_factor ? 'Turn the second factor off' : 'Set up a second factor' }}
      </ActButton>
    </form>
  </section>
</template>

<style scoped>
.qr {
  width: 180px;
}

.qr :deep(svg) {
  width: 100%;
  height: auto;
}

.codes {
  columns: 2;
  font-weight: 650;
  font-size: 17px;
}

.secret {
  overflow-wrap: anywhere;
}
</style>
