<script setup lang="ts">
import type { Disposed } from '~~/shared/calling'
import { sayEffectDone } from '~/words/effects'

/** What a key has set off, part by part. */
defineProps<{ done: Disposed, busy: boolean }>()
defineEmits<{ close: [], back: [] }>()
</script>

<template>
  <section
    class="result"
    aria-live="polite"
  >
    <h3>{{ done.name }}</h3>
    <ul>
      <li
        v-for="one in done.effects"
        :key="one.position"
        :class="one.state"
      >
        {{ sayEffectDone(one) }}
      </li>
    </ul>
    <p class="acts">
      <Button
        label="Back to the page"
        size="small"
        @click="$emit('close')"
      />
      <button
        type="button"
        class="plain-button"
        :disabled="busy"
        @click="$emit('back')"
      >
        Take it back
      </button>
    </p>
  </section>
</template>

<style scoped>
.result { display: grid; gap: var(--space-3); }
.result li { padding: var(--space-2) 0; border-top: 1px solid var(--rule); }
.failed { color: var(--wrong); }
.left-out { color: var(--quiet); text-decoration: line-through; }
.acts { display: flex; gap: var(--space-7); align-items: center; }
</style>
