<script setup lang="ts">
/** A room of Set-up: what it is for, what can be chosen, and what is there once it is loaded. */
defineProps<{
  title: string
  hint: string
  /** What is being loaded, in the plural: "the fields". */
  what: string
  loaded: boolean
  problem: string
}>()
defineEmits<{ again: [] }>()
</script>

<template>
  <div class="page">
    <SetUpNav />
    <header class="head">
      <h1>{{ title }}</h1>
      <p class="quiet">
        {{ hint }}
      </p>
    </header>
    <slot name="choice" />
    <LoadProblem
      v-if="problem"
      :problem="problem"
      :again="loaded ? `See ${what} as they are` : 'Load them again'"
      @again="$emit('again')"
    />
    <p
      v-if="!loaded && !problem"
      class="quiet"
      role="status"
    >
      Loading {{ what }}…
    </p>
    <slot v-else-if="loaded" />
  </div>
</template>

<style scoped>
.page { padding: var(--space-5) var(--space-8) var(--space-9); display: grid; gap: var(--space-5); align-content: start; }
.head { display: flex; align-items: baseline; gap: var(--space-6); flex-wrap: wrap; }
@media (max-width: 700px) { .page { padding-inline: var(--space-5); overflow-x: auto; } }
</style>
