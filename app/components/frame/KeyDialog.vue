<script setup lang="ts">
import { activeKeys } from '~/composables/keys'

const shown = defineModel<boolean>({ required: true })
</script>

<template>
  <Dialog
    v-model:visible="shown"
    modal
    header="Keys"
    :style="{ width: '26rem' }"
  >
    <dl class="keys">
      <template
        v-for="{ keys, shown: label, what } in activeKeys"
        :key="`${keys} ${what}`"
      >
        <dt><kbd>{{ label }}</kbd></dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
    <p class="quiet small">
      Single keys work while the cursor is in no field.
    </p>
  </Dialog>
</template>

<style scoped>
.keys { display: grid; grid-template-columns: auto 1fr; gap: var(--space-3) var(--space-6); margin-bottom: var(--space-6); }
</style>
