<script setup lang="ts">
import { onErrorCaptured, ref } from 'vue'
import ActButton from '@/shared/ui/ActButton.vue'
import ActLink from '@/shared/ui/ActLink.vue'

/** A page that breaks says so and offers a way on; the places around it stay. */
const broken = ref<string | null>(null)
onErrorCaptured((error) => {
  console.error(error)
  broken.value = error.message
  return false
})
const reload = (): void => location.reload()
</script>

<template>
  <section v-if="broken !== null" class="panel lines" role="alert">
    <h1>This page has stopped working</h1>
    <p>
      What was recorded is safe. Reload the page; if it stops again, show these words to whoever looks after
      this machine: “{{ broken }}”.
    </p>
    <p class="acts">
      <ActButton first @click="reload">Reload the page</ActButton>
      <ActLink :to="{ name: 'today' }">Today</ActLink>
    </p>
  </section>
  <slot v-else />
</template>
