<script setup lang="ts">
import { useLeaving } from '~/stores/leaving'

const leaving = useLeaving()
</script>

<template>
  <Dialog
    visible
    modal
    header="It is not saved"
    :style="{ width: '24rem' }"
    @update:visible="leaving.say(false)"
  >
    <p>What you changed is gone once you leave.</p>
    <p class="ways">
      <Button
        label="Go on writing"
        autofocus
        @click="leaving.say(false)"
      />
      <button
        type="button"
        class="plain-button"
        @click="leaving.say(true)"
      >
        Leave it
      </button>
    </p>
  </Dialog>
</template>

<style scoped>
.ways { display: flex; gap: var(--space-6); align-items: center; margin-top: var(--space-6); }
</style>
