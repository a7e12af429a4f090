<script setup lang="ts">
/** The rooms of a place, above what is in one of them. */
defineProps<{ place: string, rooms: { name: string, to: string }[] }>()
</script>

<template>
  <nav
    class="rooms"
    :aria-label="place"
  >
    <NuxtLink
      v-for="room in rooms"
      :key="room.to"
      :to="room.to"
    >
      {{ room.name }}
    </NuxtLink>
  </nav>
</template>

<style scoped>
.rooms { display: flex; gap: var(--space-2) var(--space-6); flex-wrap: wrap; }
.rooms a { color: var(--quiet); text-decoration: none; }
.rooms a.router-link-exact-active { color: var(--ink); font-weight: 700; }
</style>
