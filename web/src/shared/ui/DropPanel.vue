<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { onClickOutside } from '@vueuse/core'
import { ref } from 'vue'

/** A button with a panel that drops below it; Esc or a click elsewhere closes it, nothing is lost. */
defineProps<{ word: string; wide?: boolean }>()
const shown = ref(false)
const frame = ref<HTMLElement | null>(null)
const button = ref<InstanceType<typeof ActButton> | null>(null)
onClickOutside(frame, () => (shown.value = false))

function close(event: KeyboardEvent): void {
  if (!shown.value) return
  event.stopPropagation()
  event.preventDefault()
  shown.value = false
  ;(button.value?.$el as HTMLElement | undefined)?.focus()
}
</script>

<template>
  <div ref="frame" class="drop" @keydown.esc="close">
    <ActButton ref="button" :aria-expanded="shown" @click="shown = !shown">
      {{ word }}&nbsp;<span aria-hidden="true">▾</span>
    </ActButton>
    <div v-if="shown" class="panel below" :class="{ wide }"><slot /></div>
  </div>
</template>

<style scoped>
.drop {
  position: relative;
}

.below {
  position: absolute;
  z-index: 4;
  right: 0;
  top: calc(100% + 4px);
  width: 290px;
  box-shadow: 0 6px 18px rgb(0 0 0 / 18%);
}

.below.wide {
  width: 400px;
}

@media (max-width: 719px) {
  .drop {
    position: static;
  }

  .below,
  .below.wide {
    position: fixed;
    inset: auto 10px 80px;
    width: auto;
    max-height: 70vh;
    overflow-y: auto;
  }
}
</style>
