<script setup lang="ts">
import { NModal } from 'naive-ui'
import { useSession } from '@/shared/api/useSession'
import SignInForm from './SignInForm.vue'

const { ranOut } = useSession()
</script>

<template>
  <NModal v-model:show="ranOut" :mask-closable="false">
    <div class="panel again" role="dialog" aria-modal="true" aria-labelledby="again-title">
      <h2 id="again-title">Sign in to continue</h2>
      <p class="quiet">
        You have been signed out. What you typed is still here and is saved once you are back.
      </p>
      <SignInForm />
    </div>
  </NModal>
</template>

<style scoped>
.again {
  display: grid;
  gap: 10px;
  width: min(420px, calc(100vw - 24px));
}
</style>
