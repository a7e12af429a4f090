<script setup lang="ts">
import { PhPhone } from '@phosphor-icons/vue'
import { useKeys } from '~/composables/keys'
import { useCalls } from '~/stores/calls'

/** Whoever a key is about to call: for two seconds the exchange knows nothing of it. */
const { name } = defineProps<{ name: string }>()
const calls = useCalls()
useKeys([{ keys: 'Escape', shown: 'Esc', what: 'Do not call', inFields: true, first: true, act: calls.dontDial }])
</script>

<template>
  <p
    class="soon"
    role="status"
  >
    <PhPhone
      size="18"
      aria-hidden="true"
    />
    <span class="whom">Calling <strong>{{ name }}</strong>…</span>
    <button
      type="button"
      class="act"
      @click="calls.dontDial()"
    >
      Don’t call <kbd>Esc</kbd>
    </button>
    <span
      class="time"
      aria-hidden="true"
    />
  </p>
</template>

<style scoped>
.soon { position: relative; display: flex; align-items: center; gap: var(--space-3); height: 41px; padding-left: var(--space-6); border-right: 1px solid var(--field-rule); background: var(--calm-ground); color: var(--calm); white-space: nowrap; }
.soon strong { color: var(--ink); }
.whom { flex: 1; min-width: 0; max-width: 24rem; overflow: hidden; text-overflow: ellipsis; }
.act { align-self: stretch; border: 0; background: none; color: var(--wrong); cursor: pointer; font-weight: 700; padding: 0 var(--space-6) 0 var(--space-4); }
.act:hover { background: var(--hover); }
.act:focus-visible { outline-offset: -3px; }
.time { position: absolute; left: 0; bottom: 0; height: 3px; background: var(--calm); animation: runs-out 2s linear forwards; }
@media (max-width: 700px) { .soon { flex: 1 1 100%; min-width: 0; border-right: 0; } }
@keyframes runs-out { from { width: 100%; } to { width: 0; } }
</style>
