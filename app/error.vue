<script setup lang="ts">
import type { NuxtError } from '#app'

const { error } = defineProps<{ error: NuxtError }>()
</script>

<template>
  <main class="lost">
    <h1>{{ error.statusCode === 404 ? 'There is no such page' : 'Something broke' }}</h1>
    <p class="quiet">
      {{ error.statusCode === 404 ? 'The address leads nowhere.' : 'It is our fault. What you wrote is kept in this browser; load the page again.' }}
    </p>
    <p>
      <a href="/records/leads">To the lists</a>
    </p>
  </main>
</template>

<style scoped>
.lost { max-width: 30rem; margin: 20vh auto 0; padding: 0 var(--space-8); display: grid; gap: var(--space-3); }
</style>
