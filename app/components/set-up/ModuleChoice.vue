<script setup lang="ts" generic="M extends Module | Held">
import { HELD_FACTS, type Held, type Module } from '~~/shared/modules'

/** Which module a room of Set-up is about, and making something new in it where that can be. */
const { modules, makes = '' } = defineProps<{ modules: readonly M[], makes?: string }>()
const emit = defineEmits<{ make: [] }>()
const module = defineModel<M>({ required: true })
</script>

<template>
  <nav
    class="modules"
    aria-label="Modules"
  >
    <button
      v-for="one in modules"
      :key="one"
      type="button"
      class="module"
      :aria-pressed="one === module"
      @click="module = one"
    >
      {{ HELD_FACTS[one].many }}
    </button>
    <button
      v-if="makes"
      type="button"
      class="plain-button new"
      @click="emit('make')"
    >
      {{ makes }} <kbd>C</kbd>
    </button>
  </nav>
</template>

<style scoped>
.modules { display: flex; flex-wrap: wrap; gap: var(--space-2) var(--space-6); align-items: baseline; }
.module { border: 0; background: none; padding: 0 0 var(--space-1); cursor: pointer; color: var(--quiet); border-bottom: 2px solid transparent; }
.module[aria-pressed='true'] { color: var(--accent); font-weight: 700; border-color: var(--accent); }
.new { margin-left: auto; }
</style>
