<script setup lang="ts">
/** The rooms of Calling. */
const ROOMS = [
  { name: 'Call rounds', to: '/calling' },
  { name: 'Spoken messages', to: '/calling/spoken' },
  { name: 'How I call', to: '/calling/how' },
]
</script>

<template>
  <nav
    class="rooms"
    aria-label="Calling"
  >
    <NuxtLink
      v-for="room in ROOMS"
      :key="room.to"
      :to="room.to"
    >
      {{ room.name }}
    </NuxtLink>
  </nav>
</template>

<style scoped>
.rooms { display: flex; gap: 1.2rem; flex-wrap: wrap; }
.rooms a { color: var(--quiet); text-decoration: none; }
.rooms a.router-link-exact-active { color: var(--ink); font-weight: 700; }
</style>
