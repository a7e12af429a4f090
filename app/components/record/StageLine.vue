<script setup lang="ts">
import type { Stage } from '~~/shared/pipelines'

/** Where a record stands among its stages; pressing another one moves it there. */
const { stages, stage, mayMove = false } = defineProps<{ stages: Stage[], stage: Stage | null, mayMove?: boolean }>()
const emit = defineEmits<{ move: [stage: Stage] }>()
</script>

<template>
  <ol
    v-if="stages.length > 0"
    class="stages"
    aria-label="Stage"
  >
    <li
      v-for="one in stages"
      :key="one.id"
      :aria-current="one.id === stage?.id ? 'step' : undefined"
    >
      <span
        v-if="one.id === stage?.id || !mayMove"
        :class="{ here: one.id === stage?.id }"
      >{{ one.name }}</span>
      <button
        v-else
        type="button"
        class="to"
        :title="`Move to ${one.name}`"
        @click="emit('move', one)"
      >
        {{ one.name }}
      </button>
    </li>
  </ol>
</template>

<style scoped>
.stages { display: flex; flex-wrap: wrap; font-size: var(--size-small); color: var(--quiet); }
.stages li + li::before { content: ''; display: inline-block; width: 1rem; height: 1px; background: var(--field-rule); margin: 0 var(--space-1); vertical-align: middle; }
.here { color: var(--accent); font-weight: 700; }
.to { border: 0; background: none; padding: 0; color: inherit; cursor: pointer; }
.to:hover { color: var(--ink); text-decoration: underline; }
</style>
