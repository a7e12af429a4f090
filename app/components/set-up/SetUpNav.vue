<script setup lang="ts">
/** The rooms of Set-up. */
const ROOMS = [{ name: 'Fields of your own', to: '/set-up/fields' }, { name: 'Pipelines', to: '/set-up/pipelines' }, { name: 'Lines', to: '/set-up/lines' }]
</script>

<template>
  <nav
    class="rooms"
    aria-label="Set-up"
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
.rooms { display: flex; gap: 1.2rem; }
.rooms a { color: var(--quiet); text-decoration: none; }
.rooms a.router-link-active { color: var(--ink); font-weight: 700; }
</style>
