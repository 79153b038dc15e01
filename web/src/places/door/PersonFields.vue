<script setup lang="ts">
import TypedInput from '@/shared/ui/TypedInput.vue'

/** Who someone new is: what the others call them, and what they sign in with. */
const person = defineModel<{ cook: string; username: string; password: string }>({ required: true })
defineProps<{ called?: string }>()
</script>

<template>
  <TypedInput
    v-model="person.cook"
    label="What the others call you"
    path="cook"
    autocomplete="given-name"
    :placeholder="called ?? ''"
  />
  <TypedInput
    v-model="person.username"
    label="Name to sign in with"
    path="username"
    autocomplete="username"
  />
  <TypedInput
    v-model="person.password"
    label="Password"
    path="password"
    password
    autocomplete="new-password"
    hint="12 letters or more, not a common one"
  />
</template>
