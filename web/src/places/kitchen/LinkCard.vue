<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { momentText } from '@/shared/quantity/when'

/** A link that works once: to be photographed by a phone, read out, or copied. */
const props = defineProps<{ link: Schemas['LinkOut']; words: string }>()
defineEmits<{ close: [] }>()
const copied = ref(false)
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(props.link.link)
  copied.value = true
}
</script>

<template>
  <section class="panel lines link" aria-live="polite">
    <h2>{{ words }}</h2>
    <!-- eslint-disable-next-line vue/no-v-html -- drawn by the server from its own address and code -->
    <div class="qr" role="img" :aria-label="`QR code of ${link.link}`" v-html="link.qr" />
    <p>
      Code <b class="code">{{ link.code }}</b>
    </p>
    <p class="small address">{{ link.link }}</p>
    <p class="small quiet">
      Works once, until {{ momentText(link.ends_at) }}. It is shown only now.
      <template v-if="link.mailed"> Also sent by mail.</template>
    </p>
    <div class="acts">
      <ActButton small @click="copy">{{ copied ? 'Copied' : 'Copy the link' }}</ActButton>
      <ActButton small @click="$emit('close')">Done</ActButton>
    </div>
  </section>
</template>

<style scoped>
.link {
  border-left: 6px solid var(--good);
}

.qr {
  width: 180px;
}

.qr :deep(svg) {
  width: 100%;
  height: auto;
}

.code {
  font-size: 24px;
  letter-spacing: 0.06em;
}

.address {
  overflow-wrap: anywhere;
}

.acts {
  display: flex;
  gap: 8px;
}
</style>
